/** Where Quillfern sells, and whom it does not sell to. */
export const VALUE_SETS = [
  { key: 'continent', name: 'Continent', values: ['NL', 'DE'] },
  { key: 'british-isles', name: 'British Isles', values: ['GB', 'IE'] },
  { key: 'north', name: 'Builds North', values: ['GB EH', 'GB G', 'GB NE', 'GB DH', 'GB LS', 'GB YO', 'GB M', 'GB L'] },
  { key: 'competitors', name: 'Competitors', values: ['glassworth.example', 'orangery-direct.example'] },
];
