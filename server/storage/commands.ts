import { dataFolder, databaseFile } from "../db/open";
import { newOwnerPasscode } from "../commands/people";
import { backupFile, backupTo } from "./backup";
import { openShop } from "./open-shop";
import { restoreFrom } from "./restore";

const kib = (bytes: number) => `${(bytes / 1024).toFixed(0)} KiB`;

/** `npm run backup [file]`: a consistent copy of the shop's data, also while the program runs. @returns the exit code */
export function backupCommand([target = backupFile(dataFolder(), Date.now())]: readonly string[]): number {
  return said(() => {
    const { bytes } = backupTo(databaseFile(), target);
    return `${target}: ${kib(bytes)}, sound`;
  });
}

/** `npm run restore <file>`: puts a backup in the place of the shop's data; what was there is set aside. @returns the exit code */
export async function restoreCommand([backup]: readonly string[]): Promise<number> {
  if (!backup) return said(() => fail("Say which backup: npm run restore <file>. Backups lie in the folder backups of the data folder."));
  const folder = dataFolder();
  try {
    const { setAside, bytes } = await restoreFrom(backup, folder, Date.now());
    console.log(
      `${databaseFile(folder)}: ${kib(bytes)} put back from ${backup}. ${setAside ? `What was there lies in ${setAside}.` : ""}`.trim(),
    );
    return 0;
  } catch (error) {
    return said(() => fail(error));
  }
}

/**
 * `npm run passcode`: a new passcode for the owner, who has forgotten it; devices that wrong ones have locked may try again. Only while the program is
 * stopped, and so only at the machine. @returns the exit code
 */
export async function passcodeCommand(): Promise<number> {
  try {
    const shop = await openShop(dataFolder());
    try {
      const passcode = await newOwnerPasscode(shop.ctx);
      console.log(
        `The owner's passcode is now ${passcode}\nIt is not shown again. Start the program, come in with it, and choose your own under People and devices.`,
      );
    } finally {
      await shop.close();
    }
    return 0;
  } catch (error) {
    return said(() => fail(error));
  }
}

function fail(error: unknown): never {
  throw error instanceof Error ? error : new Error(String(error));
}

function said(work: () => string): number {
  try {
    console.log(work());
    return 0;
  } catch (error) {
    console.error(error instanceof Error ? error.message : String(error));
    return 1;
  }
}
