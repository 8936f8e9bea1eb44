<?php

declare(strict_types=1);

namespace App\Edits;

use App\Exceptions\UserError;

/** All edit commands. A new one is one file and one line here. */
final class CommandList
{
    private const ALL = [
        Commands\SceneSet::class,
        Commands\ProductionSet::class,
        Commands\ItemAdd::class,
        Commands\ItemPlace::class,
        Commands\ItemSet::class,
        Commands\ItemDress::class,
        Commands\ItemDuplicate::class,
        Commands\ItemKey::class,
        Commands\ItemRoute::class,
        Commands\ItemPush::class,
        Commands\ItemRide::class,
        Commands\ItemWear::class,
        Commands\ItemRemove::class,
        Commands\CrowdAdd::class,
        Commands\BeatAdd::class,
        Commands\BeatSet::class,
        Commands\BeatRemove::class,
        Commands\BeatSplit::class,
        Commands\BeatTrim::class,
        Commands\BeatBestJoin::class,
        Commands\BeatPair::class,
        Commands\TouchUpKey::class,
        Commands\TouchUpSet::class,
        Commands\TouchUpRemove::class,
        Commands\ContactAdd::class,
        Commands\ContactSet::class,
        Commands\ContactRemove::class,
        Commands\LinkAdd::class,
        Commands\LinkSet::class,
        Commands\LinkRemove::class,
        Commands\CameraAdd::class,
        Commands\CameraKey::class,
        Commands\CameraUnkey::class,
        Commands\CameraSet::class,
        Commands\CameraRemove::class,
        Commands\ShotCut::class,
        Commands\ShotMove::class,
        Commands\ShotSet::class,
        Commands\ShotRemove::class,
    ];

    /** @return array<string, EditCommand> */
    public static function byName(): array
    {
        $out = [];
        foreach (self::ALL as $class) {
            $command = new $class;
            $out[$command->name()] = $command;
        }

        return $out;
    }

    public static function get(string $name): EditCommand
    {
        return self::byName()[$name] ?? throw new UserError(
            'edit.unknown',
            "There is no edit command \"{$name}\".",
            'Use one of: '.implode(', ', array_keys(self::byName())).'.',
        );
    }
}
