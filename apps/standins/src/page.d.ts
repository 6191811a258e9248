/** HTML shared by the pages of the stand-ins: plain, without script. */
export declare function escapeHtml(text: string): string;
export declare function page(title: string, note: string, body: string): string;
