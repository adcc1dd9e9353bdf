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

  it('leave branches within a loop what they are: one of them is shown', () => {
    const code = compiled('<template v-for="each in list" :key="each"><i v-if="each === 1">one</i><i v-else-if="each === 2">two</i><i v-else>{{ each }} more</i><p v-if="a">of it</p></template>');
    expect(code.match(/\(each === [12]\)/g)).toEqual(['(each === 1)', '(each === 2)']);
    expect(code.match(/"i"/g)).toHaveLength(3);
    expect(code).toMatch(/\(each === 1\)\s*\?[\s\S]*\(each === 2\)\s*\?[\s\S]*\$say\("\{0\} more", \(each\)\)/);
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
