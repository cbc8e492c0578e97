/** Usual ratios of crops, width over height. */
export const RATIOS = [
  { name: "1:1", ratio: 1 },
  { name: "4:5", ratio: 4 / 5 },
  { name: "3:2", ratio: 3 / 2 },
  { name: "16:9", ratio: 16 / 9 },
  { name: "2:1", ratio: 2 },
];
