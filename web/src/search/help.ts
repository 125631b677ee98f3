/** What newcomers ask, with the answer in a line or two and the step where it is done. */
export const helpLines: readonly { readonly asks: string; readonly answer: string }[] = [
  {
    asks: 'How do I begin?',
    answer: 'Write in, out and equations at Design: in A B, out Y, Y = A & B. Everything else follows.',
  },
  {
    asks: 'How do I lay a jumper?',
    answer: 'At Board draw from one hole to another, or press Enter at both; or type U1.8 > U3.2.',
  },
  {
    asks: 'How do I seat a part?',
    answer: 'At Board press Seat a part and type its number or what it does; arrows and drags move it, R rotates it.',
  },
  {
    asks: 'How is a board laid out for me?',
    answer: 'At Board press Lay it all out; Guide me shows what comes next, one thing at a time.',
  },
  {
    asks: 'How do I use fewer chips?',
    answer:
      'Pack sets strategies side by side, each with how sure it is; press one to look at it, take it if it is better.',
  },
  {
    asks: 'How do I use only the chips I have?',
    answer: 'At Pack press Drawer and list them, or import a CSV of part and count.',
  },
  {
    asks: 'What is wrong with my wiring?',
    answer: 'Inspect lists every problem with its place; Fix mends it where one press can.',
  },
  {
    asks: 'How do I flip a switch?',
    answer: 'At Power up press Power on, then a switch or the key that stands beside it.',
  },
  {
    asks: 'Does the board do what the sheet says?',
    answer: 'Walk the table at Power up: every row is set and the lamps are read.',
  },
  {
    asks: 'How do I measure volts?',
    answer: 'At Power up point at a hole, a wire or a lamp; or press / and type a pin such as U1.8.',
  },
  {
    asks: 'How do I build it on a real bench?',
    answer: 'Build card lists the stages with a picture after each; print it and tick off as you go.',
  },
  {
    asks: 'Where are my jobs kept?',
    answer: 'In this browser, as you type. Export takes one out as a file, Back up on the shelf all of them.',
  },
];
