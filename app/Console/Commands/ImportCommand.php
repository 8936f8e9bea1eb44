<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\AssetIntake;
use App\Exceptions\UserError;
use App\Models\Production;

final class ImportCommand extends ReelCommand
{
    protected $signature = 'reel:import {file : GLB, embedded glTF or BVH} {--as= : performer, set, prop or motion} {--production= : name or number; the house kit without it} {--name=} {--json}';

    protected $description = 'Bring a file into the kit; prints facts and findings';

    protected function work(): int
    {
        $as = $this->option('as');
        if ($as !== null && ! in_array($as, ['performer', 'set', 'prop', 'motion'], true)) {
            throw new UserError('import.kind', "\"{$as}\" is not a kind of asset.", 'Use --as=performer, set, prop or motion.');
        }
        $path = $this->argument('file');
        $limit = config('reel.upload_bytes');
        if (is_file($path) && filesize($path) > $limit) {
            throw new UserError('intake.too-large', sprintf('The file has %d bytes; at most %d are taken.', filesize($path), is_int($limit) ? $limit : 0), 'Simplify it or split it up.');
        }
        $name = $this->option('name') ?? pathinfo($path, PATHINFO_FILENAME);
        $version = app(AssetIntake::class)->model($this->production(), $this->file($path), $name, $as);
        $version->load('asset');

        return $this->answer([
            'asset' => $version->asset_id, 'name' => $version->asset->name, 'kind' => $version->asset->kind, 'version' => $version->number, 'facts' => $version->facts, 'findings' => $version->findings,
        ], ["{$version->asset->name} is asset {$version->asset_id}, a {$version->asset->kind}, version {$version->number}.", (string) json_encode($version->facts), ...$version->findings]);
    }

    private function production(): ?Production
    {
        $ref = $this->option('production');
        if ($ref === null) {
            return null;
        }

        return Production::query()->where('id', (int) $ref)->orWhere('name', $ref)->first() ?? throw new UserError('production.unknown', "There is no production \"{$ref}\".", 'Give its name or number.');
    }
}
