/**
 * The pins of every chip, from its data sheet, the other way round than `chips/` has them: by what a
 * pin does, then its number. A wrong pin burns a chip, so the two are held to each other by a test.
 * A name with several numbers counts up: `A 1 4` is 1A and 2A, `Q# 3 2` is Q1 and Q2, `Q#0 3 2` is
 * Q0 and Q1.
 */
const corner = (pins: number): string => `VCC ${pins}, GND ${pins / 2}`;
const quad = `${corner(14)}, A 1 4 9 12, B 2 5 10 13, Y 3 6 8 11`;
const hex = `${corner(14)}, A 1 3 5 9 11 13, Y 2 4 6 8 10 12`;
const triple = `${corner(14)}, A 1 3 9, B 2 4 10, C 13 5 11, Y 12 6 8`;
const dual = `${corner(14)}, A 1 9, B 2 10, C 4 12, D 5 13, Y 6 8, NC 3 11`;
const pairs = `${corner(14)}, A 1 5 8 12, B 2 6 9 13, Y 3 4 10 11`;
const corners = `${corner(14)}, Y 1 13, A 2 9, B 3 10, C 4 11, D 5 12, NC 6 8`;
const octal = `${corner(20)}, 1A# 2 4 6 8, 1Y# 18 16 14 12, 2A# 11 13 15 17, 2Y# 9 7 5 3, 1OEn 1`;
const decimal = `${corner(16)}, A 15, B 14, C 13, D 12, Y0n 1, Y1n 2, Y2n 3, Y3n 4, Y4n 5, Y5n 6, Y6n 7, Y7n 9, Y8n 10, Y9n 11`;
const segments = `${corner(16)}, A 7, B 1, C 2, D 6, a 13, b 12, c 11, d 10, e 9, f 15, g 14, LTn 3, BIn 4`;
const eightToOne = `${corner(16)}, A 11, B 10, C 9, Gn 7, Y 5, W 6, D#0 4 3 2 1 15 14 13 12`;
const fourToOne = `${corner(16)}, A 14, B 2, 1Gn 1, 2Gn 15, 1C#0 6 5 4 3, 2C#0 10 11 12 13, Y 7 9`;
const twoToOne = `${corner(16)}, S 1, A 2 5 11 14, B 3 6 10 13, Y 4 7 9 12`;
const octalFlops = `${corner(20)}, D 3 4 7 8 13 14 17 18, Q 2 5 6 9 12 15 16 19`;
const facing = `${corner(20)}, OEn 1, D 2 3 4 5 6 7 8 9, Q 19 18 17 16 15 14 13 12`;
const loadable = `${corner(16)}, CLRn 1, CLK 2, LDn 9, ENP 7, ENT 10, A 3, B 4, C 5, D 6, QA 14, QB 13, QC 12, QD 11, RCO 15`;
const upDown = `${corner(16)}, CLK 14, ENn 4, DU 5, LDn 11, A 15, B 1, C 10, D 9, QA 3, QB 2, QC 6, QD 7, MAX 12, RCOn 13`;
const twoClocks = `${corner(16)}, UP 5, DOWN 4, CLR 14, LDn 11, A 15, B 1, C 10, D 9, QA 3, QB 2, QC 6, QD 7, COn 12, BOn 13`;
const twins = `${corner(16)}, 1A 1, 1B 2, 1CLRn 3, 1Q 13, 1Qn 4, 1CX 14, 1RCX 15, 2A 9, 2B 10, 2CLRn 11, 2Q 5, 2Qn 12, 2CX 6, 2RCX 7`;

/** Pins of each chip, written apart from the catalogue and from another source: `NAME pins, NAME pins`, in the order of the units. */
export const pinouts: Readonly<Record<string, string>> = {
  '7400': quad,
  '7402': `${corner(14)}, Y 1 4 10 13, A 2 5 8 11, B 3 6 9 12`,
  '7403': quad,
  '7404': hex,
  '7405': hex,
  '7406': hex,
  '7407': hex,
  '7408': quad,
  '7409': quad,
  '7410': triple,
  '7411': triple,
  '7414': hex,
  '7420': dual,
  '7421': dual,
  '7427': triple,
  '7430': `${corner(14)}, A 1, B 2, C 3, D 4, E 5, F 6, G 11, H 12, Y 8, NC 9 10 13`,
  '7432': quad,
  '7437': quad,
  '7438': quad,
  '7451': `${corner(14)}, 1A 1, 1B 12, 1C 13, 1D 9, 1E 10, 1F 11, 1Y 8, 2A 2, 2B 3, 2C 4, 2D 5, 2Y 6`,
  '7454': `${corner(14)}, A 1, B 2, C 3, D 4, E 5, F 9, G 10, H 11, I 12, J 13, Y 6, NC 8`,
  '7486': quad,
  '74125': `${corner(14)}, OEn 1 4 10 13, A 2 5 9 12, Y 3 6 8 11`,
  '74126': `${corner(14)}, OE 1 4 10 13, A 2 5 9 12, Y 3 6 8 11`,
  '74132': quad,
  '74133': `${corner(16)}, A 1, B 2, C 3, D 4, E 5, F 6, G 7, H 10, I 11, J 12, K 13, L 14, M 15, Y 9`,
  '74136': quad,
  '74260': `${corner(14)}, 1A 1, 1B 2, 1C 3, 1D 12, 1E 13, 2A 4, 2B 8, 2C 9, 2D 10, 2E 11, Y 5 6`,
  '74266': pairs,
  '4002': corners,
  '4072': corners,
  '4075': `${corner(14)}, A 3 1 11, B 4 2 12, C 5 8 13, Y 6 9 10`,
  '747266': pairs,
  '74240': `${octal}, 2OEn 19`,
  '74241': `${octal}, 2OE 19`,
  '74244': `${octal}, 2OEn 19`,
  '74245': `${corner(20)}, DIR 1, OEn 19, A# 2 3 4 5 6 7 8 9, B# 18 17 16 15 14 13 12 11`,
  '74365': `${corner(16)}, OE1n 1, OE2n 15, A# 2 4 6 10 12 14, Y# 3 5 7 9 11 13`,
  '74367': `${corner(16)}, OEn 1 15, 1A# 2 4 6 10, 1Y# 3 5 7 9, 2A# 12 14, 2Y# 11 13`,
  '74541': `${corner(20)}, OE1n 1, OE2n 19, A# 2 3 4 5 6 7 8 9, Y# 18 17 16 15 14 13 12 11`,
  '7442': decimal,
  '7445': decimal,
  '7447': `${segments}, RBIn 5`,
  '7448': `${segments}, RBIn 5`,
  '74247': `${segments}, RBIn 5`,
  '4511': `${segments}, LE 5`,
  '74138': `${corner(16)}, A 1, B 2, C 3, G1 6, G2An 4, G2Bn 5, Y0n 15, Y1n 14, Y2n 13, Y3n 12, Y4n 11, Y5n 10, Y6n 9, Y7n 7`,
  '74238': `${corner(16)}, A 1, B 2, C 3, G1 6, G2An 4, G2Bn 5, Y#0 15 14 13 12 11 10 9 7`,
  '74139': `${corner(16)}, Gn 1 15, A 2 14, B 3 13, 1Y0n 4, 1Y1n 5, 1Y2n 6, 1Y3n 7, 2Y0n 12, 2Y1n 11, 2Y2n 10, 2Y3n 9`,
  '74147': `${corner(16)}, I1n 11, I2n 12, I3n 13, I4n 1, I5n 2, I6n 3, I7n 4, I8n 5, I9n 10, An 9, Bn 7, Cn 6, Dn 14, NC 15`,
  '74148': `${corner(16)}, I0n 10, I1n 11, I2n 12, I3n 13, I4n 1, I5n 2, I6n 3, I7n 4, EIn 5, A0n 9, A1n 7, A2n 6, GSn 14, EOn 15`,
  '74151': eightToOne,
  '74251': eightToOne,
  '74153': fourToOne,
  '74253': fourToOne,
  '74154': `VCC 24, GND 12, A 23, B 22, C 21, D 20, G1n 18, G2n 19, Y0n 1, Y1n 2, Y2n 3, Y3n 4, Y4n 5, Y5n 6, Y6n 7, Y7n 8, Y8n 9, Y9n 10, Y10n 11, Y11n 13, Y12n 14, Y13n 15, Y14n 16, Y15n 17`,
  '74155': `${corner(16)}, A 13, B 3, 1C 1, 1Gn 2, 2Cn 15, 2Gn 14, 1Y0n 7, 1Y1n 6, 1Y2n 5, 1Y3n 4, 2Y0n 9, 2Y1n 10, 2Y2n 11, 2Y3n 12`,
  '74157': `${twoToOne}, Gn 15`,
  '74158': `${twoToOne}, Gn 15`,
  '74257': `${twoToOne}, OEn 15`,
  '74259': `${corner(16)}, S#0 1 2 3, Q#0 4 5 6 7 9 10 11 12, D 13, Gn 14, CLRn 15`,
  '7483': 'VCC 5, GND 12, A# 10 8 3 1, B# 11 7 4 16, S# 9 6 2 15, C0 13, C4 14',
  '7485': `${corner(16)}, A#0 10 12 13 15, B#0 9 11 14 1, ILT 2, IEQ 3, IGT 4, GT 5, EQ 6, LT 7`,
  '74180': `${corner(14)}, A 8, B 9, C 10, D 11, E 12, F 13, G 1, H 2, EVEN 3, ODD 4, SEVEN 5, SODD 6`,
  '74181':
    'VCC 24, GND 12, A#0 2 23 21 19, B#0 1 22 20 18, S#0 6 5 4 3, F#0 9 10 11 13, CN 7, M 8, AEQB 14, P 15, CN4 16, G 17',
  '74182': `${corner(16)}, G0n 3, P0n 4, G1n 1, P1n 2, G2n 14, P2n 15, G3n 5, P3n 6, CN 13, CNX 12, CNY 11, CNZ 9, Gn 10, Pn 7`,
  '74280': `${corner(14)}, A 8, B 9, C 10, D 11, E 12, F 13, G 1, H 2, I 4, EVEN 5, ODD 6, NC 3`,
  '74283': `${corner(16)}, A# 5 3 14 12, B# 6 2 15 11, S# 4 1 13 10, C0 7, C4 9`,
  '7473': 'VCC 4, GND 11, CLK 1 5, CLRn 2 6, J 14 7, K 3 10, Q 12 9, Qn 13 8',
  '7474': `${corner(14)}, CLRn 1 13, D 2 12, CLK 3 11, PREn 4 10, Q 5 9, Qn 6 8`,
  '7475': 'VCC 5, GND 12, D 2 3 6 7, Q 16 15 10 9, Qn 1 14 11 8, C12 13, C34 4',
  '7476': 'VCC 5, GND 13, CLK 1 6, PREn 2 7, CLRn 3 8, J 4 9, K 16 12, Q 15 11, Qn 14 10',
  '74107': `${corner(14)}, J 1 8, K 4 11, CLK 12 9, CLRn 13 10, Q 3 5, Qn 2 6`,
  '74109': `${corner(16)}, CLRn 1 15, J 2 14, Kn 3 13, CLK 4 12, PREn 5 11, Q 6 10, Qn 7 9`,
  '74112': `${corner(16)}, CLK 1 13, K 2 12, J 3 11, PREn 4 10, Q 5 9, Qn 6 7, CLRn 15 14`,
  '74173': `${corner(16)}, OE1n 1, OE2n 2, G1n 9, G2n 10, CLK 7, CLR 15, D 14 13 12 11, Q 3 4 5 6`,
  '74174': `${corner(16)}, CLRn 1, CLK 9, D 3 4 6 11 13 14, Q 2 5 7 10 12 15`,
  '74175': `${corner(16)}, CLRn 1, CLK 9, D 4 5 12 13, Q 2 7 10 15, Qn 3 6 11 14`,
  '74273': `${octalFlops}, CLRn 1, CLK 11`,
  '74279': `${corner(16)}, Rn 1 5 10 14, 1S1n 2, 1S2n 3, 2Sn 6, 3S1n 11, 3S2n 12, 4Sn 15, Q 4 7 9 13`,
  '74373': `${octalFlops}, OEn 1, LE 11`,
  '74374': `${octalFlops}, OEn 1, CLK 11`,
  '74377': `${octalFlops}, ENn 1, CLK 11`,
  '74573': `${facing}, LE 11`,
  '74574': `${facing}, CLK 11`,
  '7495': `${corner(14)}, SER 1, A 2, B 3, C 4, D 5, MODE 6, CLK1 9, CLK2 8, QA 13, QB 12, QC 11, QD 10`,
  '74164': `${corner(14)}, A 1, B 2, CLK 8, CLRn 9, QA 3, QB 4, QC 5, QD 6, QE 10, QF 11, QG 12, QH 13`,
  '74165': `${corner(16)}, LDn 1, CLK 2, INH 15, SER 10, A 11, B 12, C 13, D 14, E 3, F 4, G 5, H 6, QH 9, QHn 7`,
  '74166': `${corner(16)}, SER 1, A 2, B 3, C 4, D 5, E 10, F 11, G 12, H 14, INH 6, CLK 7, CLRn 9, LDn 15, QH 13`,
  '74194': `${corner(16)}, CLRn 1, SR 2, SL 7, A 3, B 4, C 5, D 6, S0 9, S1 10, CLK 11, QA 15, QB 14, QC 13, QD 12`,
  '74195': `${corner(16)}, CLRn 1, J 2, Kn 3, A 4, B 5, C 6, D 7, LDn 9, CLK 10, QA 15, QB 14, QC 13, QD 12, QDn 11`,
  '74595': `${corner(16)}, SER 14, SRCLK 11, SRCLRn 10, RCLK 12, OEn 13, QA 15, QB 1, QC 2, QD 3, QE 4, QF 5, QG 6, QH 7, QHS 9`,
  '7490': 'VCC 5, GND 10, CKA 14, CKB 1, R01 2, R02 3, R91 6, R92 7, QA 12, QB 9, QC 8, QD 11, NC 4 13',
  '7492': 'VCC 5, GND 10, CKA 14, CKB 1, R01 6, R02 7, QA 12, QB 11, QC 9, QD 8, NC 2 3 4 13',
  '7493': 'VCC 5, GND 10, CKA 14, CKB 1, R01 2, R02 3, QA 12, QB 9, QC 8, QD 11, NC 4 6 7 13',
  '74160': loadable,
  '74161': loadable,
  '74162': loadable,
  '74163': loadable,
  '74190': upDown,
  '74191': upDown,
  '74192': twoClocks,
  '74193': twoClocks,
  '74290': `${corner(14)}, CKA 10, CKB 11, R01 12, R02 13, R91 1, R92 3, QA 9, QB 5, QC 4, QD 8, NC 2 6`,
  '74293': `${corner(14)}, CKA 10, CKB 11, R01 12, R02 13, QA 9, QB 5, QC 4, QD 8, NC 1 2 3 6`,
  '74390': `${corner(16)}, CKA 1 15, CLR 2 14, QA 3 13, CKB 4 12, QB 5 11, QC 6 10, QD 7 9`,
  '74393': `${corner(14)}, CLK 1 13, CLR 2 12, QA 3 11, QB 4 10, QC 5 9, QD 6 8`,
  '4017': `${corner(16)}, CLK 14, CEn 13, CLR 15, CO 12, Q#0 3 2 4 7 10 1 5 6 9 11`,
  '4020': `${corner(16)}, CLK 10, CLR 11, Q1 9, Q4 7, Q5 5, Q6 4, Q7 6, Q8 13, Q9 12, Q10 14, Q11 15, Q12 1, Q13 2, Q14 3`,
  '4040': `${corner(16)}, CLK 10, CLR 11, Q# 9 7 6 5 3 2 4 13 12 14 15 1`,
  '4060': `${corner(16)}, RS 11, RTC 10, CTC 9, CLR 12, Q4 7, Q5 5, Q6 4, Q7 6, Q8 14, Q9 13, Q10 15, Q12 1, Q13 2, Q14 3`,
  '74121': `${corner(14)}, A1 3, A2 4, B 5, Q 6, Qn 1, RINT 9, CX 10, RCX 11, NC 2 8 12 13`,
  '74123': twins,
  '74221': twins,
  '555': 'VCC 8, GND 1, TRIG 2, OUT 3, RESETn 4, CONT 5, THRES 6, DISCH 7',
  '556': 'VCC 14, GND 7, DISCH 1 13, THRES 2 12, CONT 3 11, RESETn 4 10, OUT 5 9, TRIG 6 8',
};
