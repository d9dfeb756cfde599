/** Version of the computing core, written on everything that is issued. Raised when a figure could change. */
export const CORE_VERSION = '5';

/** Version of the catalogue (substances, methods, atomic weights), written on everything that is issued. */
export const CATALOGUE_VERSION = '3';
