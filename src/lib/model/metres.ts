/** The document is in millimetres, the drawing in metres. */
export const MM = 0.001;
