/** One record that is no JSON: the bytes of a picture. */
interface Bytes {
  type: string;
  base64: string;
}

/**
 * What the browser keeps, as it is: for what can't be read, by this version or at all. It asks the browser alone, and neither upgrades
 * nor parses anything.
 * @param projectId what of it; everything if none is given
 * @returns JSON of all records, by the names of their tables; `undefined` where nothing is kept
 */
export async function rawStorage(projectId?: string, name = "etape"): Promise<string | undefined> {
  const database = await promised(indexedDB.open(name));
  try {
    const tables = [...database.objectStoreNames];
    if (tables.length === 0) return undefined;
    const transaction = database.transaction(tables, "readonly");
    const found = await Promise.all(tables.map(async (table) => [table, await promised(transaction.objectStore(table).getAll())] as const));
    const wanted = found.map(([table, rows]) => [table, rows.filter((row) => projectId === undefined || belongs(row, projectId))] as const);
    const written = await Promise.all(wanted.map(async ([table, rows]) => [table, await Promise.all(rows.map(writable))] as const));
    return JSON.stringify(Object.fromEntries(written), undefined, 1);
  } finally {
    database.close();
  }
}

function belongs(row: unknown, projectId: string): boolean {
  return typeof row === "object" && row !== null && (("projectId" in row && row.projectId === projectId) || ("id" in row && row.id === projectId));
}

async function writable(row: unknown): Promise<unknown> {
  if (typeof row !== "object" || row === null) return row;
  const fields = await Promise.all(Object.entries(row).map(async ([key, value]) => [key, value instanceof Blob ? await bytesOf(value) : value] as const));
  return Object.fromEntries(fields);
}

async function bytesOf(blob: Blob): Promise<Bytes> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let text = "";
  for (const byte of bytes) text += String.fromCharCode(byte);
  return { type: blob.type, base64: btoa(text) };
}

function promised<T>(request: IDBRequest<T>): Promise<T> {
  return new Promise((done, failed) => {
    request.onsuccess = () => done(request.result);
    request.onerror = () => failed(request.error);
  });
}
