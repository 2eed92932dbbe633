/**
 * Names that other lists give to objects of the base list, from memory: no open list in the registries carries them. Each is taken only
 * where the object it is said to be is found, and planetary nebulae only where one lies at the galactic place that is said of it.
 */

/** Abell's planetary nebulae by galactic longitude and latitude, tenths of a degree. */
export const ABELL_PLANETARIES: Readonly<Record<number, readonly [longitudeDeg: number, latitudeDeg: number]>> = {
  1: [119.4, 6.5], 2: [122.1, -4.9], 3: [131.5, 2.6], 4: [144.3, -15.5], 5: [141.7, -7.8], 6: [136.1, 4.9], 7: [215.5, -30.8], 8: [167, -0.9],
  9: [172.1, 0.8], 10: [197.2, -14.2], 12: [198.6, -6.3], 13: [204, -8.5], 14: [197.8, -3.3], 15: [233.5, -16.3], 16: [153.7, 22.8], 18: [216.3, -1.3],
  19: [200.7, 8.4], 20: [214.9, 7.8], 21: [205.1, 14.2], 22: [215.6, 11.1], 24: [217.1, 14.7], 25: [224.3, 15.3], 26: [250.3, 0.1], 28: [158.8, 37.1],
  29: [244.5, 12.5], 30: [208.5, 33.2], 31: [219.1, 31.2], 33: [238, 34.8], 34: [248.7, 29.5], 35: [303.6, 40], 36: [318.4, 41.4], 39: [47, 42.4],
  41: [9.6, 10.5], 43: [36, 17.6], 44: [15.6, -3], 45: [20.2, -0.6], 46: [55.4, 16], 48: [29, 0.4], 49: [27.3, -3.4], 50: [78.5, 18.7],
  51: [17.6, -10.2], 52: [50.4, 5.2], 53: [40.3, -0.4], 54: [55.3, 6.6], 55: [33, -5.3], 56: [37.9, -3.4], 57: [58.6, 6.1], 58: [37.5, -5.1],
  59: [53.3, 3], 60: [25, -11.6], 61: [77.6, 14.7], 62: [47.1, -4.1], 63: [53.8, -3], 65: [17.3, -21.9], 66: [19.8, -23.7], 67: [43.5, -13.4],
  68: [60, -4.3], 69: [76.3, 1.1], 70: [38.1, -25.4], 71: [84.9, 4.4], 72: [59.7, -18.7], 73: [95.2, 7.8], 74: [72.7, -17.1], 75: [101.8, 8.7],
  77: [97.5, 3.1], 78: [81.2, -14.9], 79: [102.9, -2.3], 80: [102.8, -5], 81: [117.5, 18.9], 82: [114, -4.6], 83: [113.6, -6.9], 84: [112.9, -10.2],
  86: [118.7, 8.2],
}; // prettier-ignore

/** Arp's peculiar galaxies by the member that leads them. */
export const ARP: Readonly<Record<number, string>> = {
  6: "NGC 2537", 16: "M 66", 18: "NGC 4088", 22: "NGC 4027", 23: "NGC 4618", 24: "NGC 3445", 25: "NGC 2276", 26: "M 101", 27: "NGC 3631", 28: "NGC 7678",
  29: "NGC 6946", 37: "M 77", 41: "NGC 1232", 46: "UGC 12665", 55: "UGC 4881", 72: "NGC 5996", 76: "M 90", 77: "NGC 1097", 78: "NGC 772", 80: "NGC 2633",
  81: "NGC 6621", 82: "NGC 2535", 83: "NGC 3799", 84: "NGC 5394", 85: "M 51", 86: "NGC 7753", 87: "NGC 3808", 89: "NGC 2648", 90: "NGC 5929",
  91: "NGC 5953", 93: "NGC 7284", 94: "NGC 3226", 104: "NGC 5216", 105: "NGC 3561", 112: "NGC 7806", 113: "NGC 70", 114: "NGC 2276", 116: "M 60",
  118: "NGC 1143", 120: "NGC 4438", 133: "NGC 541", 134: "M 49", 135: "NGC 1023", 139: "NGC 7814", 140: "NGC 275", 142: "NGC 2936", 143: "NGC 2445",
  144: "NGC 7828", 147: "IC 298", 150: "NGC 7609", 152: "M 87", 153: "NGC 5128", 154: "NGC 1316", 155: "NGC 3656", 157: "NGC 520", 158: "NGC 523",
  159: "NGC 4747", 160: "NGC 4194", 162: "NGC 3414", 163: "NGC 4670", 164: "NGC 455", 165: "NGC 2418", 166: "NGC 750", 167: "NGC 2672", 168: "M 32",
  169: "NGC 7236", 170: "NGC 7578", 171: "NGC 5718", 174: "NGC 3068", 178: "NGC 5613", 181: "NGC 3212", 182: "NGC 7674", 184: "NGC 1961",
  185: "NGC 6217", 186: "NGC 1614", 189: "NGC 4651", 193: "IC 883", 199: "NGC 5544", 200: "NGC 1134", 202: "NGC 2719", 203: "NGC 3712", 205: "NGC 3448",
  206: "UGC 5983", 209: "NGC 6052", 210: "NGC 1569", 212: "NGC 7625", 213: "IC 356", 214: "NGC 3718", 215: "NGC 2782", 216: "NGC 7679", 217: "NGC 3310",
  220: "IC 4553", 222: "NGC 7727", 223: "NGC 7585", 224: "NGC 3921", 225: "NGC 2655", 226: "NGC 7252", 227: "NGC 474", 228: "IC 162", 229: "NGC 507",
  231: "IC 51", 232: "NGC 2911", 234: "NGC 3738", 235: "NGC 14", 239: "NGC 5278", 240: "NGC 5257", 242: "NGC 4676", 243: "NGC 2623", 244: "NGC 4038",
  245: "NGC 2992", 246: "NGC 7838", 259: "NGC 1741", 263: "NGC 3239", 264: "NGC 3104", 266: "NGC 4861", 269: "NGC 4490", 270: "NGC 3395",
  271: "NGC 5426", 272: "NGC 6050", 274: "NGC 5679", 276: "NGC 935", 277: "NGC 4809", 278: "NGC 7253", 279: "NGC 1253", 280: "NGC 3769",
  281: "NGC 4631", 282: "NGC 169", 283: "NGC 2798", 284: "NGC 7714", 285: "NGC 2854", 286: "NGC 5566", 287: "NGC 2735", 288: "NGC 5221", 289: "NGC 3981",
  290: "IC 195", 293: "NGC 6285", 294: "NGC 3786", 297: "NGC 5754", 298: "NGC 7469", 299: "NGC 3690", 303: "IC 563", 304: "NGC 1241", 305: "NGC 4016",
  307: "NGC 2872", 308: "NGC 545", 309: "NGC 942", 313: "NGC 3994", 315: "NGC 2832", 320: "NGC 3753", 331: "NGC 383", 333: "NGC 1024", 335: "NGC 3509",
  336: "NGC 2685", 337: "M 82",
}; // prettier-ignore

/** Groups of galaxies as pictures of several: what they are called, and their members in the base list. */
export const GROUPS: readonly { readonly id: string; readonly name?: string; readonly members: readonly string[] }[] = [
  { id: "HCG 2", members: ["UGC 312"] }, { id: "HCG 7", members: ["NGC 192", "NGC 196", "NGC 197", "NGC 201"] }, { id: "HCG 10", members: ["NGC 529", "NGC 531", "NGC 536", "NGC 542"] },
  { id: "HCG 15", members: ["NGC 7805"] }, { id: "HCG 16", members: ["NGC 833", "NGC 835", "NGC 838", "NGC 839"] }, { id: "HCG 22", members: ["NGC 1189", "NGC 1190", "NGC 1191", "NGC 1192", "NGC 1199"] },
  { id: "HCG 23", members: ["NGC 1214", "NGC 1215", "NGC 1216"] }, { id: "HCG 31", members: ["NGC 1741", "IC 399"] }, { id: "HCG 37", members: ["NGC 2783", "NGC 2783B"] }, { id: "HCG 40", members: [] },
  { id: "HCG 42", members: ["NGC 3091", "NGC 3096"] }, { id: "HCG 48", members: ["IC 2597"] }, { id: "HCG 51", members: ["NGC 3651", "NGC 3653"] }, { id: "HCG 53", members: ["NGC 3697"] },
  { id: "HCG 57", name: "Copeland's Septet", members: ["NGC 3745", "NGC 3746", "NGC 3748", "NGC 3750", "NGC 3751", "NGC 3753", "NGC 3754"] },
  { id: "HCG 58", members: ["NGC 3817", "NGC 3819", "NGC 3820", "NGC 3822", "NGC 3825"] }, { id: "HCG 61", name: "The Box", members: ["NGC 4169", "NGC 4173", "NGC 4174", "NGC 4175"] },
  { id: "HCG 62", members: ["NGC 4776", "NGC 4778", "NGC 4761", "NGC 4764"] }, { id: "HCG 68", members: ["NGC 5350", "NGC 5353", "NGC 5354", "NGC 5355", "NGC 5358"] },
  { id: "HCG 79", name: "Seyfert's Sextet", members: ["NGC 6027"] }, { id: "HCG 82", members: ["NGC 6161", "NGC 6162", "NGC 6163"] }, { id: "HCG 88", members: ["NGC 6975", "NGC 6976", "NGC 6977", "NGC 6978"] },
  { id: "HCG 90", members: ["NGC 7172", "NGC 7173", "NGC 7174", "NGC 7176"] }, { id: "HCG 91", members: ["NGC 7214"] }, { id: "HCG 93", members: ["NGC 7547", "NGC 7549", "NGC 7550", "NGC 7558"] },
  { id: "HCG 94", members: ["NGC 7578"] }, { id: "HCG 95", members: ["NGC 7609"] }, { id: "HCG 96", members: ["NGC 7674", "NGC 7675"] }, { id: "HCG 97", members: ["IC 5351", "IC 5352", "IC 5356", "IC 5357", "IC 5359"] },
  { id: "HCG 98", members: ["NGC 7783"] }, { id: "HCG 100", members: ["NGC 7803"] },
  { id: "Robert's Quartet", members: ["NGC 87", "NGC 88", "NGC 89", "NGC 92"] }, { id: "Carafe Group", members: ["NGC 1595", "NGC 1598"] },
  { id: "NGC 4622 + NGC 4650", name: "Centaurus Chain", members: ["NGC 4622", "NGC 4650"] }, { id: "NGC 7549 + NGC 7550", members: [] },
]; // prettier-ignore

/** Names that belong to a group and not to a member of it. */
export const GROUP_NAME = /\b(Triplet|Quartet|Quintet|Sextet|Septet|Chain|Group)$/i;

/** Position angles of large galaxies, degrees from north through east: general knowledge, good to about 5°. */
export const POSITION_ANGLES: Readonly<Record<string, number>> = {
  "NGC 55": 108, "NGC 134": 50, "NGC 147": 25, "NGC 157": 40, "NGC 185": 35, "NGC 205": 170, "M 110": 170, "NGC 247": 174, "NGC 253": 52, "NGC 300": 111, "NGC 488": 15,
  "NGC 520": 130, "NGC 628": 25, "NGC 660": 170, "NGC 672": 65, "NGC 772": 130, "NGC 891": 22, "NGC 908": 75, "NGC 925": 102, "NGC 986": 150, "NGC 1003": 97, "NGC 1023": 87,
  "NGC 1055": 105, "NGC 1084": 35, "NGC 1097": 130, "NGC 1156": 25, "NGC 1232": 108, "NGC 1291": 165, "NGC 1300": 106, "NGC 1313": 40, "NGC 1316": 50, "NGC 1350": 0, "NGC 1365": 32,
  "NGC 1380": 7, "NGC 1395": 92, "NGC 1398": 100, "NGC 1433": 21, "NGC 1448": 41, "NGC 1512": 90, "NGC 1532": 33, "NGC 1553": 150, "NGC 1559": 64, "NGC 1566": 60, "NGC 1569": 120,
  "NGC 1617": 107, "NGC 1672": 170, "NGC 1744": 168, "NGC 1792": 137, "NGC 1808": 133, "NGC 1964": 32, "NGC 2146": 56, "NGC 2207": 141, "NGC 2336": 178, "NGC 2366": 25, "NGC 2403": 127,
  "NGC 2442": 40, "NGC 2541": 165, "NGC 2613": 113, "NGC 2655": 60, "NGC 2683": 44, "NGC 2685": 38, "NGC 2715": 22, "NGC 2768": 95, "NGC 2775": 155, "NGC 2841": 147, "NGC 2903": 17,
  "NGC 2976": 143, "NGC 2985": 0, "NGC 2997": 110, "M 81": 157, "M 82": 65, "NGC 3077": 45, "NGC 3079": 165, "NGC 3109": 93, "NGC 3115": 43, "NGC 3166": 87, "NGC 3169": 45, "NGC 3184": 135,
  "NGC 3198": 35, "NGC 3227": 155, "NGC 3239": 80, "NGC 3310": 0, "NGC 3319": 37, "NGC 3344": 0, "M 95": 13, "M 96": 5, "NGC 3359": 170, "NGC 3384": 53, "NGC 3432": 38, "NGC 3486": 80,
  "NGC 3489": 70, "NGC 3511": 76, "NGC 3521": 163, "M 108": 80, "NGC 3621": 159, "M 65": 174, "M 66": 173, "NGC 3628": 104, "NGC 3631": 0, "NGC 3675": 178, "NGC 3718": 15, "NGC 3726": 10,
  "NGC 3769": 152, "NGC 3877": 35, "NGC 3893": 165, "NGC 3938": 0, "NGC 3953": 13, "M 109": 68, "NGC 4013": 66, "NGC 4027": 167, "NGC 4038": 80, "NGC 4051": 135, "NGC 4062": 100, "NGC 4088": 43,
  "NGC 4096": 20, "NGC 4100": 167, "NGC 4111": 150, "NGC 4125": 95, "NGC 4136": 0, "NGC 4145": 100, "NGC 4151": 50, "NGC 4157": 66, "M 98": 155, "NGC 4214": 0, "NGC 4216": 19, "NGC 4217": 50,
  "NGC 4236": 162, "NGC 4244": 48, "NGC 4254": 68, "M 106": 150, "NGC 4274": 102, "M 61": 162, "NGC 4314": 145, "M 100": 30, "NGC 4388": 92, "NGC 4395": 147, "NGC 4438": 27, "NGC 4449": 45,
  "NGC 4450": 175, "NGC 4490": 125, "M 88": 140, "NGC 4517": 83, "NGC 4526": 113, "NGC 4535": 0, "NGC 4536": 130, "M 91": 150, "NGC 4559": 150, "NGC 4565": 136, "NGC 4569": 23, "M 90": 23,
  "M 58": 95, "M 104": 90, "NGC 4605": 125, "NGC 4627": 10, "NGC 4631": 86, "NGC 4636": 150, "NGC 4651": 80, "NGC 4654": 128, "NGC 4656": 33, "NGC 4666": 42, "NGC 4696": 95, "NGC 4697": 70, "NGC 4699": 45,
  "NGC 4725": 35, "M 94": 105, "NGC 4762": 32, "M 64": 115, "NGC 4945": 43, "NGC 4976": 161, "NGC 5005": 65, "NGC 5033": 170, "M 63": 105, "NGC 5068": 110, "NGC 5102": 48, "NGC 5128": 35, "M 51": 163,
  "NGC 5195": 79, "M 83": 44, "NGC 5248": 110, "NGC 5364": 30, "NGC 5371": 8, "NGC 5474": 100, "NGC 5585": 30, "NGC 5643": 88, "NGC 5676": 47, "NGC 5746": 170, "NGC 5775": 146, "NGC 5792": 84,
  "NGC 5846": 0, "NGC 5866": 128, "NGC 5879": 0, "NGC 5905": 135, "NGC 5906": 155, "NGC 5907": 155, "NGC 5962": 110, "NGC 5985": 13, "NGC 6015": 28, "NGC 6207": 15, "NGC 6217": 162, "NGC 6300": 118,
  "NGC 6340": 120, "NGC 6384": 30, "NGC 6412": 0, "NGC 6503": 123, "NGC 6643": 38, "NGC 6744": 15, "NGC 6822": 5, "NGC 6951": 170, "NGC 7090": 127, "NGC 7184": 62, "NGC 7217": 95, "NGC 7314": 3,
  "NGC 7331": 171, "NGC 7332": 155, "NGC 7339": 93, "NGC 7410": 45, "NGC 7424": 125, "NGC 7457": 130, "NGC 7479": 25, "NGC 7497": 45, "NGC 7541": 102, "NGC 7552": 1, "NGC 7582": 157, "NGC 7606": 145,
  "NGC 7640": 167, "NGC 7640A": 0, "NGC 7723": 35, "NGC 7727": 35, "NGC 7741": 170, "NGC 7793": 98, "NGC 7814": 135, "IC 342": 0, "IC 2574": 50, "IC 1613": 50, "IC 5332": 0, "IC 1727": 150, "M 31": 35,
  "M 32": 170, "M 33": 23, "M 77": 70, "M 74": 25, "M 101": 0, "M 59": 165, "M 60": 105, "M 84": 135, "M 86": 130, "M 85": 5, "M 49": 155, "M 87": 155, "M 105": 71, "M 102": 128,
}; // prettier-ignore
