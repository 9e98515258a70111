/** A value that cannot be changed at any depth; tuples stay tuples. */
export type DeepReadonly<T> = T extends object ? { readonly [K in keyof T]: DeepReadonly<T[K]> } : T;
