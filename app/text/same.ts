/** The same words in another language: every key of the first, no other. */
export type Same<T> = { [K in keyof T]: T[K] extends string ? string : Same<T[K]> };

/** Some words in another language: those that are missing are read in the first. */
export type Some<T> = { [K in keyof T]?: T[K] extends string ? string : Some<T[K]> };
