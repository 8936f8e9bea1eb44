<?php

declare(strict_types=1);

namespace App\Assets;

use App\Exceptions\UserError;
use App\Models\AssetVersion;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;

/** Which joints of an asset play which parts of a body, and how sure that is. */
final readonly class RoleSheet
{
    /**
     * @param  list<string>  $joints
     * @param  array<string, array{joint: string, confidence: float, byHand: bool}>  $roles
     */
    private function __construct(public array $joints, public array $roles)
    {
    }

    public static function of(AssetVersion $version, StoredAssets $assets): self
    {
        $digest = $assets->byHash($version->digest);
        if (! is_array($digest['skeleton'] ?? null)) {
            throw new UserError(
                'roles.none',
                "\"{$version->asset->name}\" has no joints.",
                'Choose a performer, or a motion that came in as a file.',
            );
        }

        /** @var array{names: list<string>, parents: list<int>, translations: list<float>, rotations: list<float>, scales: list<float>, roles: array<string, int>} $s */
        $s = $digest['skeleton'];
        $skeleton = Skeleton::fromArray($s);
        $chosen = is_array($digest['rolesByHand'] ?? null) ? array_filter($digest['rolesByHand'], is_string(...)) : [];
        $judged = HumanRoles::judge($skeleton);
        $roles = [];
        foreach (HumanRoles::chosen($skeleton, $chosen) as $role => $joint) {
            $roles[$role] = [
                'joint' => $skeleton->names[$joint],
                'confidence' => isset($chosen[$role]) ? 1.0 : $judged[$role]['confidence'],
                'byHand' => isset($chosen[$role]),
            ];
        }

        return new self($skeleton->names, $roles);
    }

    /** @return list<string> every part of a body, from the hips on */
    public static function parts(): array
    {
        return [...HumanRoles::CENTRE, ...array_merge(...array_map(static fn (string $r): array => [$r.'L', $r.'R'], HumanRoles::SIDED))];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['joints' => $this->joints, 'roles' => (object) $this->roles, 'parts' => self::parts()];
    }
}
