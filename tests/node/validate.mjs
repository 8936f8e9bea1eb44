// Prints, for each GLB given, how many errors and warnings the public glTF validator finds.
import fs from 'node:fs';
import { createRequire } from 'node:module';

const validator = createRequire(import.meta.url)('gltf-validator');
const out = [];
for (const file of process.argv.slice(2)) {
    const report = await validator.validateBytes(new Uint8Array(fs.readFileSync(file)));
    out.push({
        file: file.split('/').pop(),
        errors: report.issues.numErrors,
        warnings: report.issues.numWarnings,
        first: report.issues.messages.filter((m) => m.severity === 0).slice(0, 3),
    });
}
console.log(JSON.stringify(out));
