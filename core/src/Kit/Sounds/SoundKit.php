<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Sounds;

use Closure;
use CrispReel\Core\Format\Wave;

/** The sounds of the house: all worked out by code, each with words to find it by. */
final class SoundKit
{
    /** @return list<array{string, string, list<string>, Closure(): Wave, bool}> slug, name, words, how it is made, whether it goes on for ever */
    private static function list(): array
    {
        return [
            ['sound-bell', 'Bell, one stroke', ['bell', 'ring', 'stroke', 'pier', 'ferry'], Things::bell(...), false],
            ['sound-bell-three', 'Bell, three strokes', ['bell', 'ring', 'pier', 'ferry', 'departure'], Things::bellThree(...), false],
            ['sound-horn', "Ship's horn", ['horn', 'ship', 'ferry', 'signal', 'fog', 'departure'], Things::horn(...), false],
            ['sound-engine', 'Boat engine', ['engine', 'motor', 'boat', 'ferry', 'background'], Things::engine(...), true],
            ['sound-oars', 'Stroke of oars', ['oars', 'row', 'boat', 'water'], Weather::oars(...), false],
            ['sound-splash', 'Splash', ['splash', 'water', 'fall', 'sea'], Weather::splash(...), false],
            ['sound-waves', 'Waves on a shore', ['waves', 'sea', 'water', 'shore', 'background'], Weather::waves(...), true],
            ['sound-gulls', 'Gulls', ['gulls', 'birds', 'sea', 'harbour'], Living::gulls(...), false],
            ['sound-wind', 'Wind', ['wind', 'storm', 'weather', 'cold', 'background'], Weather::wind(...), true],
            ['sound-rain', 'Rain', ['rain', 'weather', 'storm', 'background'], Weather::rain(...), true],
            ['sound-thunder', 'Thunder', ['thunder', 'storm', 'weather', 'lightning'], Weather::thunder(...), false],
            ['sound-fire', 'Fire', ['fire', 'hearth', 'stove', 'crackle', 'background'], Weather::fire(...), true],
            ['sound-crickets', 'Crickets', ['crickets', 'night', 'summer', 'forest', 'background'], Living::crickets(...), true],
            ['sound-steps-wood', 'Steps on wood', ['steps', 'walk', 'feet', 'planks', 'wood'], Steps::wood(...), true],
            ['sound-steps-stone', 'Steps on stone', ['steps', 'walk', 'feet', 'street', 'stone'], Steps::stone(...), true],
            ['sound-steps-gravel', 'Steps on gravel', ['steps', 'walk', 'feet', 'gravel', 'path'], Steps::gravel(...), true],
            ['sound-steps-earth', 'Steps on earth', ['steps', 'walk', 'feet', 'earth', 'path'], Steps::earth(...), true],
            ['sound-steps-grass', 'Steps in grass', ['steps', 'walk', 'feet', 'grass', 'meadow'], Steps::grass(...), true],
            ['sound-steps-carpet', 'Steps on carpet', ['steps', 'walk', 'feet', 'carpet', 'indoors'], Steps::carpet(...), true],
            ['sound-steps-metal', 'Steps on metal', ['steps', 'walk', 'feet', 'metal', 'ship'], Steps::metal(...), true],
            ['sound-steps-water', 'Steps in shallow water', ['steps', 'walk', 'feet', 'water', 'wade'], Steps::water(...), true],
            ['sound-lands-wood', 'Something of wood lands', ['fall', 'land', 'drop', 'wood', 'box'], Steps::landsWood(...), false],
            ['sound-lands-metal', 'Something of metal lands', ['fall', 'land', 'drop', 'metal', 'key'], Steps::landsMetal(...), false],
            ['sound-lands-soft', 'Something soft lands', ['fall', 'land', 'drop', 'soft', 'bag'], Steps::landsSoft(...), false],
            ['sound-door-open', 'Door opens', ['door', 'open', 'creak', 'enter'], Things::doorOpens(...), false],
            ['sound-door-shut', 'Door shuts', ['door', 'shut', 'close', 'slam', 'leave'], Things::doorShuts(...), false],
            ['sound-knock', 'Knock at a door', ['knock', 'door', 'visit'], Things::knock(...), false],
            ['sound-key', 'Key in a lock', ['key', 'lock', 'door', 'turn'], Things::key(...), false],
            ['sound-clock', 'Clock ticks', ['clock', 'tick', 'time', 'wait', 'background'], Things::clockTicks(...), true],
            ['sound-clock-strikes', 'Clock strikes two', ['clock', 'strike', 'time', 'chime'], Things::clockStrikes(...), false],
            ['sound-wheels', 'Cart wheels on planks', ['wheels', 'cart', 'roll', 'push', 'planks'], Things::wheels(...), true],
            ['sound-bicycle-bell', 'Bicycle bell', ['bicycle', 'bell', 'ring', 'street'], Things::bicycleBell(...), false],
            ['sound-whistle', 'Whistle', ['whistle', 'signal', 'referee', 'departure'], Things::whistle(...), false],
            ['sound-chair', 'Chair is moved', ['chair', 'scrape', 'sit', 'stand'], Things::chair(...), false],
            ['sound-glass', 'Glass is touched', ['glass', 'clink', 'cup', 'drink'], Things::glass(...), false],
            ['sound-paper', 'Letter is unfolded', ['paper', 'letter', 'read', 'book'], Things::paper(...), false],
            ['sound-murmur', 'Murmur of a crowd', ['crowd', 'people', 'voices', 'talk', 'background'], Living::murmur(...), true],
            ['sound-applause', 'Applause', ['applause', 'clap', 'cheer', 'stage', 'happy'], Living::applause(...), false],
            ['sound-drum-roll', 'Drum roll', ['drum', 'roll', 'stage', 'music', 'suspense'], Things::drumRoll(...), false],
            ['sound-fiddle', 'Fiddle, a few notes', ['fiddle', 'violin', 'music', 'tune'], Things::fiddle(...), false],
        ];
    }

    /** @return array<string, array{of: string, every: float, count: int}> sounds of what happens: of what, and how many of it lie in one */
    public static function noises(): array
    {
        $out = ['sound-wheels' => ['of' => 'roll', 'every' => 0.0, 'count' => 1]];
        foreach (['wood', 'stone', 'gravel', 'earth', 'grass', 'carpet', 'metal', 'water'] as $on) {
            $out["sound-steps-{$on}"] = ['of' => "step {$on}", 'every' => Steps::EVERY, 'count' => Steps::COUNT];
        }
        foreach (['wood', 'metal', 'soft'] as $of) {
            $out["sound-lands-{$of}"] = ['of' => "land {$of}", 'every' => Steps::LANDS[0], 'count' => Steps::LANDS[1]];
        }

        return $out;
    }

    /** @return iterable<array{slug: string, name: string, tags: list<string>, wave: Wave, loops: bool}> made one after the other */
    public static function all(): iterable
    {
        foreach (self::list() as [$slug, $name, $tags, $make, $loops]) {
            yield ['slug' => $slug, 'name' => $name, 'tags' => $tags, 'wave' => $make(), 'loops' => $loops];
        }
    }
}
