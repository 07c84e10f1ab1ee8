/** Days for which a deleted job is kept at hand. By itself, so that who shows it loads no schema. @source house rule */
export const DELETED_DAYS = 30;
