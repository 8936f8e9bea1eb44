<?php

declare(strict_types=1);

namespace App\Edits;

use App\Edits\Commands\RemoveRow;
use App\Edits\Commands\SetRow;
use App\Exceptions\UserError;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Expression;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Document\Sound;
use CrispReel\Core\Document\Take;
use CrispReel\Core\Document\TouchUp;
use stdClass;

/** All edit commands. A new one is one file and one line here; setting and removing rows of a kind takes the line only. */
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
        Commands\ItemAlight::class,
        Commands\ItemWear::class,
        Commands\ItemRemove::class,
        Commands\CrowdAdd::class,
        Commands\BeatAdd::class,
        Commands\BeatSet::class,
        Commands\BeatSplit::class,
        Commands\BeatTrim::class,
        Commands\BeatBestJoin::class,
        Commands\BeatPair::class,
        Commands\LineAdd::class,
        Commands\LineSet::class,
        Commands\LineRemove::class,
        Commands\LinesPaste::class,
        Commands\TakeAdd::class,
        Commands\TakeSet::class,
        Commands\ExpressionAdd::class,
        Commands\SoundAdd::class,
        Commands\TouchUpKey::class,
        Commands\TouchUpSet::class,
        Commands\ContactAdd::class,
        Commands\LinkAdd::class,
        Commands\CameraAdd::class,
        Commands\CameraFrame::class,
        Commands\CameraLoosen::class,
        Commands\CameraKey::class,
        Commands\CameraUnkey::class,
        Commands\CameraSet::class,
        Commands\CameraSlip::class,
        Commands\CameraRemove::class,
        Commands\ShotCut::class,
        Commands\ShotMove::class,
        Commands\ShotRemove::class,
        Commands\ReelLay::class,
    ];

    /** @return array<string, EditCommand> */
    public static function byName(): array
    {
        $out = [];
        foreach ([...array_map(static fn (string $class): EditCommand => new $class, self::ALL), ...self::ofRows()] as $command) {
            $out[$command->name()] = $command;
        }

        return $out;
    }

    /** @return list<EditCommand> */
    private static function ofRows(): array
    {
        return [
            new RemoveRow(Beat::class, 'Remove a beat'),
            new RemoveRow(TouchUp::class, 'Take a touch-up away'),
            new SetRow(Contact::class, 'Change a contact', without: ['item']),
            new RemoveRow(Contact::class, 'Let a contact go'),
            new SetRow(Link::class, 'Change a carry', without: ['child']),
            new RemoveRow(Link::class, 'Remove a carry'),
            new SetRow(Framing::class, 'Change a framing', without: ['camera'], guard: self::unlocked(...)),
            new RemoveRow(Framing::class, 'Take a framing away', guard: self::unlocked(...)),
            new SetRow(Expression::class, 'Change an expression', without: ['item']),
            new RemoveRow(Expression::class, 'Take an expression away'),
            new SetRow(Sound::class, 'Change a sound', without: ['asset']),
            new RemoveRow(Sound::class, 'Take a sound out'),
            new RemoveRow(Take::class, 'Throw a recording away'),
            new SetRow(Shot::class, 'Change a shot', without: ['in', 'out']),
        ];
    }

    /** A framing of a camera that is locked stays. */
    private static function unlocked(EditContext $scene, stdClass $framing): void
    {
        CameraLock::check($scene->find('cameras', (int) $framing->camera_id));
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
