import { compileScript, parse } from 'vue/compiler-sfc';
import { describe, expect, it } from 'vitest';
import { sayTemplates } from './sayTemplates.ts';

function compiled(template: string): string {
  const { descriptor } = parse(`<script setup lang="ts">const a = 1; const list = [1];</script><template>${template}</template>`);
  return compileScript(descriptor, { id: 'x', inlineTemplate: true, templateOptions: { compilerOptions: { nodeTransforms: [sayTemplates] } } }).content;
}

describe('texts in templates', () => {
  it('go to say as one, with what is filled in', () => {
    expect(compiled('<p>Cut {{ a }} of\n  {{ list.length }} films</p>')).toContain('$say("Cut {0} of {1} films", (a), (list.length))');
  });

  it('keep the spaces to what stands beside them', () => {
    expect(compiled('<p>Press <kbd>K</kbd> and brush</p>')).toMatch(/\$say\("Press"\) \+ " "[\s\S]*" " \+ _ctx\.\$say\("and brush"\)/);
  });

  it('are found in branches, loops and slots, and know what those name', () => {
    const code = compiled('<div><b v-if="a">yes, {{ a }}</b><b v-else>not so</b><i v-for="each in list" :key="each">row {{ each }}</i><Foo><template #part="{ film }">of {{ film }}</template></Foo></div>');
    for (const said of ['"yes, {0}", (a)', '"not so"', '"row {0}", (each)', '"of {0}", (film)']) expect(code).toContain(`$say(${said})`);
  });

  it('are those of attributes that are read or heard, and of no others', () => {
    const code = compiled('<Foo label="The film" class="wide card" name="side" aria-label="Films" />');
    expect(code).toContain('_ctx.$say("The film")');
    expect(code).toContain('_ctx.$say("Films")');
    expect(code).not.toMatch(/\$say\("(wide card|side)"\)/);
  });

  it('leave alone what holds no word', () => {
    expect(compiled('<p>{{ a }} × {{ a }} ·</p>')).not.toContain('$say');
  });
});
