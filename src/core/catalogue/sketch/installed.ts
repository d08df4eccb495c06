type Said = { readonly is: string } | { readonly unknown: unknown } | { readonly oneOf: readonly string[] };

/** What was read of a machine, as far as products are made of it. */
export interface Installed {
  readonly id: string;
  readonly product: Said;
  readonly release: Said;
  readonly installedText?: string | undefined;
}
