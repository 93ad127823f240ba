/// <reference types="vite-plugin-pwa/client" />

/** Another one for each build; see vite.config.ts. */
declare const __BUILD__: string;
