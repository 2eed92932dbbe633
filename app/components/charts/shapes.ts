/** Marks by which series are told apart without colour. */
export const SHAPES = ["circle", "square", "triangle", "diamond", "cross"] as const;

/** The mark of a series in words. */
export const shapeWord = (i: number): string => SHAPES[i % SHAPES.length] ?? "circle";
