<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\AssetIntake;
use App\Assets\StoredAssets;
use App\Exceptions\UserError;
use App\Models\Asset;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;

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
        $digest = app(StoredAssets::class)->byHash($version->digest);
        if (! is_array($digest['skeleton'] ?? null)) {
            throw new UserError('roles.none', "\"{$asset->name}\" has no joints.", 'Choose a performer, or a motion that came in as a file.');
        }

        /** @var array{names: list<string>, parents: list<int>, translations: list<float>, rotations: list<float>, scales: list<float>, roles: array<string, int>} $s */
        $s = $digest['skeleton'];
        $skeleton = Skeleton::fromArray($s);
        $chosen = is_array($digest['rolesByHand'] ?? null) ? $digest['rolesByHand'] : [];
        $judged = HumanRoles::judge($skeleton);
        $roles = [];
        foreach (HumanRoles::chosen($skeleton, array_filter($chosen, is_string(...))) as $role => $joint) {
            $roles[$role] = ['joint' => $skeleton->names[$joint], 'confidence' => isset($chosen[$role]) ? 1.0 : $judged[$role]['confidence'], 'byHand' => isset($chosen[$role])];
        }

        return $this->answer(['asset' => $asset->id, 'version' => $version->number, 'roles' => $roles], array_map(
            static fn (string $role, array $r): string => sprintf('%-12s %-28s %s', $role, $r['joint'], $r['byHand'] ? 'chosen' : sprintf('%.0f %%', 100 * $r['confidence'])), array_keys($roles), $roles,
        ));
    }
}
