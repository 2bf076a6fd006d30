/** Every request that changes something carries this header, with value `1`: no form of another page can set it. */
export const OWN_HEADER = 'X-Jack-Plane';

/** Under which path the demo yard is looked around in, beside one's own: its pages and its API. */
export const DEMO_PATH = '/demo';
