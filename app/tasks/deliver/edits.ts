import type { Draft } from 'immer';
import { strToU8, zipSync } from 'fflate';
import { currentRequest } from '../../edits/actions';
import { editSlice } from '../../state/slices';
import { currentTaskMoment } from '../../state/tempo';
import { saveBytes } from '../../ui/files';
import { complain, copy } from '../../ui/notices';
import { commandsOf } from './commands';
import { codeNow } from './setUp';
import type { DeliverState } from './state';

export const change = (name: string, recipe: (draft: Draft<DeliverState>) => void): void =>
  editSlice<DeliverState>('deliver', name, recipe, null);

const present = () => currentTaskMoment<DeliverState>('deliver');

/** Copies the code as it is now. */
export function copyCode(): void {
  const made = codeNow(present());
  if (typeof made === 'string') return complain(`There is no code to copy: ${made}`);
  void copy(made.file.text, 'the code');
}

/** Saves the code, the example, the project as a compute request and the commands, as one archive. */
export async function saveAll(): Promise<void> {
  const now = present();
  const made = codeNow(now);
  if (typeof made === 'string') return complain(`There is nothing to save: ${made}`);
  const extension = made.file.name.split('.').at(-1)!;
  const files = {
    [made.file.name]: made.file.text,
    ...(made.example && {
      [`example.${extension === 'h' ? 'c' : extension === 'hpp' ? 'cpp' : extension}`]: made.example,
    }),
    'camera.json': `${JSON.stringify(await currentRequest(), null, 2)}\n`,
    'commands.sh': `${commandsOf(now.slice).join('\n')}\n`,
  };
  saveBytes('camera.zip', zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)]))), 'application/zip'); // prettier-ignore
}
