<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Edits\RowRules;
use App\Exceptions\UserError;
use App\Models\Asset;
use CrispReel\Core\Document\Sound;

/** Puts a sound into the scene. What is made to go round does so; where it belongs is told by what the kit says of it. */
final class SoundAdd implements EditCommand
{
    /** Seconds from which on a sound that nothing is known of is taken for music. */
    private const LONG = 20.0;

    public function name(): string
    {
        return 'sound.add';
    }

    public function rules(): array
    {
        return ['asset' => 'required'] + RowRules::of(Sound::class, ['start'], ['asset']);
    }

    public function apply(EditContext $scene, array $in): string
    {
        $asset = $scene->asset($in['asset']);
        if ($asset->kind !== 'sound') {
            throw new UserError('sound.kind', "\"{$asset->name}\" is no sound.", 'Choose a sound of the kit, or drop a file of your own.');
        }
        $digest = $scene->digest((int) $asset->id);
        $in += ['lane' => self::lane($asset, $digest)] + (($digest['loops'] ?? false) === true ? ['repeats' => true] : []);
        $id = $scene->rows->insert('sounds', ['asset_id' => $asset->id] + RowColumns::fresh(Sound::class, $in, $scene));
        $scene->remember($in['as'] ?? null, $id);

        return "Sound: {$asset->name}";
    }

    /**
     * @param  array<string, mixed>  $digest
     * @return "effects"|"ambience"|"music"
     */
    private static function lane(Asset $asset, array $digest): string
    {
        $tags = (array) $asset->tags;

        return match (true) {
            in_array('music', $tags, true) => 'music', in_array('background', $tags, true) => 'ambience',
            $asset->production_id !== null && ($digest['seconds'] ?? 0.0) > self::LONG => 'music', default => 'effects',
        };
    }
}
