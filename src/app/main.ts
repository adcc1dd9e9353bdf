import './styles.ts';
import { takeUpLanguage } from '../ui/language.ts';

// Texts stand in constants, too: the language is known before anything that has some is loaded.
await takeUpLanguage();
const { start } = await import('./start.ts');
await start();
