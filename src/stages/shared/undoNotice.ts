import { ElMessage } from 'element-plus';
import { h } from 'vue';
import { say } from '../../core/words/say.ts';

/** Says that something was done and offers to take it back, by pointer or keyboard. */
export function undoNotice(text: string, undo: () => void): void {
  const notice = ElMessage({
    duration: 10_000,
    showClose: true,
    message: h('span', [
      text,
      ' ',
      h('button', { type: 'button', class: 'plain-button', style: 'margin-left: 10px', onClick: () => { notice.close(); undo(); } }, say('Undo')),
    ]),
  });
}
