declare module 'datapackage' {
  /** A Frictionless Data Package, checked against its schema. */
  export class Package {
    static load(descriptor: object, options: { readonly basePath: string }): Promise<Package>;
    readonly valid: boolean;
    readonly errors: readonly Error[];
    readonly descriptor: { readonly resources: unknown };
  }
}
