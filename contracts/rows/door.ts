/** Every request that changes something carries this header, with value `1`: no form of another page can set it. */
export const OWN_HEADER = 'X-Jack-Plane';
