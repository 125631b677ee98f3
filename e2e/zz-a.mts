export default async (p: any) => {
  await p.goes(); await p.takes('Lock interlock');
  await p.turnsTo('board');
  const say = async (t: string) => { await p.page.focus('[aria-label="type to the board"]'); await p.page.keyboard.type(t); await p.page.keyboard.press('Enter'); };
  for (const t of ['board half','board half right','board mini','board mini right','colour w3 red','straight w14','note b1.a55 the permit lamp goes to the gate house','seat display-cathode bh2.e5', 'seat push-button bh2r.e5']) await say(t);
  await p.page.click('[data-ref="U1"]'); await p.page.keyboard.down('Shift'); await p.page.click('[data-ref="U2"]'); await p.page.keyboard.up('Shift');
  await p.quiet(); await p.page.screenshot({path:'/tmp/a1.png'});
  await p.page.keyboard.press('Escape');
  await p.page.evaluate(() => { (document.querySelector('[role=application]') as any).closest('div').parentElement.parentElement.scrollTop = 2000; });
  await p.page.click('[aria-label="parts and jumpers"] li:nth-child(20) button').catch(()=>0);
  await p.quiet(); await p.page.screenshot({path:'/tmp/a2.png'});
};
