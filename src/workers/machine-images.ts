/** Where the images of booted machines are kept, beside the bundles in dist/. */
export const IMAGES = { plain: './machine.image', withTemporal: './machine-temporal.image' };
