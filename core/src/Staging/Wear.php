<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;

/** A cloth on somebody: at the joint where its file says that it is worn, cut to their height. */
final class Wear
{
    /** Metres of the figure that clothes are cut for. */
    private const CUT_FOR = 1.70;

    /**
     * @param  string  $who  item of a performer
     * @param  string  $cloth  item with `cloth.worn` in its facts
     * @param  int|null  $to  null: to the end
     * @return list<Command>
     *
     * @throws UnableToStage
     */
    public static function of(Document $scene, AssetSource $assets, string $who, string $cloth, int $from, ?int $to): array
    {
        [$person, $thing] = [$scene->items[$who], $scene->items[$cloth]];
        if ($person->kind !== 'performer') {
            throw UnableToStage::because('wear.not-performer', "\"{$person->name}\" is not a performer.", 'Choose a performer.');
        }
        $role = self::worn($assets->digest($scene->assets[$thing->asset])) ?? throw UnableToStage::because(
            'wear.no-cloth', "\"{$thing->name}\" cannot be put on.", 'Choose a cloth that says where it is worn, such as a cloak.',
        );
        $body = $assets->digest($scene->assets[$person->asset]);
        $joint = self::joint($body, $role) ?? throw UnableToStage::because(
            'wear.no-joint', "\"{$person->name}\" has no joint for the role {$role}.", 'Match the figure\'s joints first.',
        );
        $figure = is_array($body['figure'] ?? null) ? $body['figure'] : [];
        $height = is_numeric($figure['height'] ?? null) ? (float) $figure['height'] : self::CUT_FOR;

        return [
            Command::of(
                'item.place', item: $cloth, position: $person->position, headingDeg: $person->headingDeg,
                scale: $height / self::CUT_FOR * $person->scale,
            ),
            Command::of('link.add', child: $cloth, parent: $who, mount: $joint, from: $from, to: $to, keep: 'grip'),
        ];
    }

    /** @param  array<string, mixed>  $digest */
    private static function worn(array $digest): ?string
    {
        $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
        $cloth = is_array($extras['cloth'] ?? null) ? $extras['cloth'] : [];

        return is_string($cloth['worn'] ?? null) ? $cloth['worn'] : null;
    }

    /**
     * The name of the joint that plays a role.
     *
     * @param  array<string, mixed>  $digest
     */
    private static function joint(array $digest, string $role): ?string
    {
        $skeleton = is_array($digest['skeleton'] ?? null) ? $digest['skeleton'] : [];
        $joint = is_array($skeleton['roles'] ?? null) ? $skeleton['roles'][$role] ?? null : null;
        $name = is_int($joint) && is_array($skeleton['names'] ?? null) ? $skeleton['names'][$joint] ?? null : null;

        return is_string($name) ? $name : null;
    }
}
