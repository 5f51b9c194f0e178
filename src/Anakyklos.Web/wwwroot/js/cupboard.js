import { openDB } from '../lib/idb.js';

// What this device keeps: presses that are not saved yet, and pages that were prepared for a line that dies. The service worker reads the
// same cupboard, so its shape stands there, too.
let opened = null;

export const cupboard = () =>
  (opened ??= openDB('anakyklos', 1, {
    upgrade(db) {
      db.createObjectStore('kept', { keyPath: 'n', autoIncrement: true });
      db.createObjectStore('way', { keyPath: 'card' });
      db.createObjectStore('page', { keyPath: ['card', 'moment', 'panel'] });
    },
  }));
