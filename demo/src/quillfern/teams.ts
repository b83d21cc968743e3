/** Who works at Quillfern, and on which desk. */
export const TEAMS = [
  { key: 'builds-north', name: 'Builds North', people: ['Robin Nye', 'Idris Vale', 'Morag Sel'] },
  { key: 'builds-south', name: 'Builds South', people: ['Sunita Kaur', 'Tomos Pugh'] },
  { key: 'continental', name: 'Continental', people: ['Marlies Tol', 'Jonas Ebel', 'Anneke Prins'] },
  { key: 'care-desk', name: 'Care desk', people: ['Hanne Lie', 'Corin Ash'] },
  { key: 'dealer-desk', name: 'Dealer desk', people: ['Farid Amrani', 'Bryony Tew'] },
];
