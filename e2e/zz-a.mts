export default async (p: any) => {
  await p.goes(); await p.presses('New job'); await p.sees('nav[aria-label=steps]');
  await p.turnsTo('board');
  const say = async (t: string) => { await p.page.focus('[aria-label="type to the board"]'); await p.page.keyboard.type(t); await p.page.keyboard.press('Enter'); };
  for (const t of ['seat supply','seat 74HC00','seat push-button','seat dip-switch','seat change-over','seat led-bar','seat display-cathode','seat network-common','seat network-separate','seat diode','seat npn','seat potentiometer','seat clock','seat resistor','seat led','board half','board half right','board mini','board mini right','board split']) await say(t);
  await p.quiet(); await p.page.screenshot({path:'/tmp/a1.png'});
  await p.presses('larger');await p.presses('larger'); await p.quiet(); await p.page.screenshot({path:'/tmp/a2.png'});
};
