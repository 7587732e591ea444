import { MediaQuery } from 'svelte/reactivity';

const phone = new MediaQuery('(max-width: 45em)');

/** Whether the page is as narrow as a phone. */
export const narrow = {
  get is(): boolean {
    return phone.current;
  },
};
