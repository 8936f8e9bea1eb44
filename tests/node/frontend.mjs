// Calls functions of the front end's modules that need nothing but themselves:
// JSON [[module, function, [arguments]], ...] comes in, JSON [result, ...] goes out.
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import ts from 'typescript';

const modules = new Map();
async function load(file) {
    if (!modules.has(file)) {
        const text = readFileSync(resolve(import.meta.dirname, '../../resources/js', file), 'utf8');
        const { outputText } = ts.transpileModule(text, {
            compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2022 },
        });
        modules.set(file, await import(`data:text/javascript;base64,${Buffer.from(outputText).toString('base64')}`));
    }
    return modules.get(file);
}

const plain = (v) => (v instanceof Map ? Object.fromEntries(v) : v === undefined ? null : v);
const out = [];
for (const [file, name, args] of JSON.parse(readFileSync(0, 'utf8'))) out.push(plain((await load(file))[name](...args)));
process.stdout.write(JSON.stringify(out));
