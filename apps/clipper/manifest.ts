/** The manifest of the extension, as each browser wants it. */
export type Browser = 'chromium' | 'firefox';

export const manifest = (browser: Browser, version: string): object => ({
  manifest_version: 3,
  name: 'Pandecta clipper',
  version,
  description: 'Brings the page you look at into the intake of your Pandecta.',
  action: { default_popup: 'popup.html', default_title: 'Bring this page into Pandecta' },
  permissions: ['activeTab', 'alarms', 'scripting', 'storage', 'unlimitedStorage'],
  host_permissions: ['<all_urls>'],
  content_scripts: [{ matches: ['http://*/*', 'https://*/*'], js: ['look.js'], run_at: 'document_idle' }],
  background:
    browser === 'chromium'
      ? { service_worker: 'background.js', type: 'module' }
      : { scripts: ['background.js'], type: 'module' },
  ...(browser === 'firefox' && {
    browser_specific_settings: {
      gecko: {
        id: 'clipper@pandecta.example',
        strict_min_version: '128.0',
        data_collection_permissions: { required: ['websiteContent'] },
      },
    },
  }),
});
