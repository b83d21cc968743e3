/** A page of a list: `next` is given back as `after`, and absent on the last page. */
export interface Page<Item> {
  items: Item[];
  next?: string;
  total?: number;
}
