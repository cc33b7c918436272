declare module 'pgpass' {
  /** Looks a password up in a pgpass file. @param give takes it; nothing where none stands there */
  export default function pgpass(
    of: { host: string; port: number; database?: string | undefined; user?: string | undefined },
    give: (password?: string) => void,
  ): void;
}
