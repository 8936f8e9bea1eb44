<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\AssetIntake;
use App\Assets\BlobStore;
use App\Exceptions\UserError;
use App\Intake\ArrivalDesk;
use App\Intake\DropDesk;
use App\Intake\FileMap;
use App\Models\Drop;
use App\Models\Production;
use Illuminate\Support\Str;

final class ImportCommand extends ReelCommand
{
    protected $signature = 'reel:import {file* : one or more files that belong together, or zips} {--as= : performer, set, prop or motion} {--production= : name or number; the house kit without it} {--name=} {--mend : do every safe repair} {--json}';

    protected $description = 'Bring a file into the kit; prints facts and findings';

    protected function work(): int
    {
        $as = $this->option('as');
        if ($as !== null && ! in_array($as, ['performer', 'set', 'prop', 'motion'], true)) {
            throw new UserError('import.kind', "\"{$as}\" is not a kind of asset.", 'Use --as=performer, set, prop or motion.');
        }
        $production = $this->production();
        if ($production !== null && $as === null) {
            return $this->arrive($production);
        }
        $path = array_values((array) $this->argument('file'))[0] ?? '';
        $limit = config('reel.upload_bytes');
        if (is_file($path) && filesize($path) > $limit) {
            throw new UserError(
                'intake.too-large',
                sprintf('The file has %d bytes; at most %d are taken.', filesize($path), is_int($limit) ? $limit : 0),
                'Simplify it or split it up.',
            );
        }
        $name = $this->option('name') ?? pathinfo($path, PATHINFO_FILENAME);
        $version = app(AssetIntake::class)->model($production, $this->file($path), $name, $as);
        $version->load('asset');

        return $this->answer([
            'asset' => $version->asset_id, 'name' => $version->asset->name, 'kind' => $version->asset->kind,
            'version' => $version->number, 'facts' => $version->facts, 'findings' => $version->findings,
        ], [
            "{$version->asset->name} is asset {$version->asset_id}, a {$version->asset->kind}, version {$version->number}.",
            (string) json_encode($version->facts), ...$version->findings,
        ]);
    }

    /** The same way in as a drop on the page: a slip for each file. */
    private function arrive(Production $production): int
    {
        $user = $production->members()->where('role', 'owner')->value('user_id')
            ?? throw new UserError('production.nobody', "\"{$production->name}\" has no owner.", 'Open it in the browser once.');
        $drop = Drop::query()->create([
            'production_id' => $production->id, 'user_id' => $user, 'uuid' => (string) Str::uuid(), 'unused' => [], 'status' => 'waiting',
        ]);
        foreach ((array) $this->argument('file') as $path) {
            $bytes = $this->file($path);
            $drop->files()->create([
                'path' => mb_substr(FileMap::plain(basename($path)), -290), 'blob' => app(BlobStore::class)->put($bytes),
                'bytes' => strlen($bytes),
            ]);
        }
        app(DropDesk::class)->receive($drop);
        $out = $lines = [];
        foreach ($drop->arrivals()->with(['asset', 'production'])->orderBy('id')->get() as $a) {
            if ($this->option('mend') && $a->status === 'ready') {
                app(ArrivalDesk::class)->examine($a, all: true);
                $a->refresh();
            }
            $slip = is_array($a->slip) ? $a->slip : [];
            $out[] = [
                'file' => $a->path, 'status' => $a->status, 'asset' => $a->asset_id, 'kind' => $a->kind,
                'facts' => $slip['facts'] ?? null, 'findings' => $slip['findings'] ?? [], 'parts' => $slip['parts'] ?? null,
                'motions' => $a->motions, 'error' => $a->error,
            ];
            $lines[] = "{$a->path}: ".(
                $a->status === 'refused'
                    ? "{$a->error['message']} {$a->error['remedy']}"
                    : "{$a->name} is asset {$a->asset_id}, a {$a->kind}."
            );
            foreach (is_array($slip['findings'] ?? null) ? $slip['findings'] : [] as $f) {
                $lines[] = is_array($f)
                    ? '  '.(($f['mended'] ?? false) === true ? 'mended: ' : '').(is_string($f['sentence'] ?? null) ? $f['sentence'] : '')
                    : '';
            }
        }
        foreach ($drop->refresh()->unused as $path => $why) {
            $lines[] = "{$path}: {$why}";
        }
        $refused = array_filter($out, static fn (array $o): bool => $o['status'] === 'refused');
        $this->answer(['arrivals' => $out, 'unused' => $drop->unused], $lines);

        return $refused === [] && $out !== [] ? 0 : 2;
    }

    private function production(): ?Production
    {
        $ref = $this->option('production');
        if ($ref === null) {
            return null;
        }

        return Production::query()->where('id', (int) $ref)->orWhere('name', $ref)->first()
            ?? throw new UserError('production.unknown', "There is no production \"{$ref}\".", 'Give its name or number.');
    }
}
