/** The map of a package, by which a package is known. */
export const MAP = 'map/map.json';
/** The checksums of its other files, as sha256sum writes them. */
export const CHECKSUMS = 'checksums.sha256';
