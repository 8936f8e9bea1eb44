<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\AssetIntake;
use App\Assets\RoleSheet;
use App\Assets\StoredAssets;
use App\Exceptions\UserError;
use App\Models\Asset;

final class RolesCommand extends ReelCommand
{
    protected $signature = 'reel:roles {asset : name or number} {choices?* : part=joint} {--json}';

    protected $description = 'Which joints of an asset play which parts of a body; part=joint chooses one';

    protected function work(): int
    {
        $ref = $this->argument('asset');
        $asset = Asset::query()->where('id', (int) $ref)->orWhere('slug', $ref)->orWhere('name', $ref)->orderByDesc('id')->first()
            ?? throw new UserError('asset.unknown', "There is no asset \"{$ref}\".", 'Give its name or number.');
        $version = $asset->versions()->orderByDesc('number')->firstOrFail();
        $byHand = [];
        foreach ($this->argument('choices') as $choice) {
            $parts = explode('=', (string) $choice, 2);
            if (count($parts) !== 2) {
                throw new UserError('roles.choice', "\"{$choice}\" is not a choice.", 'Write part=joint, as hips=Root.');
            }
            $byHand[$parts[0]] = $parts[1];
        }
        if ($byHand !== []) {
            $version = app(AssetIntake::class)->roles($version, $byHand);
        }
        $roles = RoleSheet::of($version, app(StoredAssets::class))->roles;

        return $this->answer(['asset' => $asset->id, 'version' => $version->number, 'roles' => $roles], array_map(
            static fn (string $role, array $r): string => sprintf(
                '%-12s %-28s %s',
                $role,
                $r['joint'],
                $r['byHand'] ? 'chosen' : sprintf('%.0f %%', 100 * $r['confidence']),
            ), array_keys($roles), $roles,
        ));
    }
}
