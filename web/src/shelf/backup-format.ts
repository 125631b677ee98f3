/** What a backup of the whole shelf says that it is. */
export const BACKUP_FORMAT = 'saddlebag-shelf';

/** Whether a text is such a backup, by how it begins. */
export const isBackup = (text: string): boolean => text.slice(0, 200).includes(`"format": "${BACKUP_FORMAT}"`);
