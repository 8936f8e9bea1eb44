<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** What a thing is like to walk on, told by the words of its name where nobody has said it. */
final class Underfoot
{
    public const KINDS = ['wood', 'stone', 'gravel', 'earth', 'grass', 'carpet', 'metal', 'water'];

    /** What the open ground is. */
    public const OPEN = 'earth';

    /** The first that fits counts. */
    private const WORDS = [
        'carpet' => '/carpet|rug|mat\b|bed|cushion|sofa/', 'grass' => '/grass|lawn|meadow|clearing|field|garden/',
        'gravel' => '/gravel|pebble|beach|shingle/', 'metal' => '/metal|iron|steel|grating|container/',
        'stone' => '/stone|street|road|pavement|square|quay|church|castle|cellar|bridge|tiles?\b|kerb|courtyard|wall/',
        'earth' => '/earth|forest|wood[s]\b|country|path|hill|shore|sand|ground|yard/', 'water' => '/water|sea\b|lake|river|pond|puddle/',
        'wood' => '/pier|jetty|deck|plank|boat|ferry|hut|stage|room|kitchen|class|floor|stair|ramp|wagon|cart|table|bench|box|crate|chair/',
    ];

    private const LANDS = [
        'metal' => '/key|bell|lamp|lantern|can\b|tin|glass|bottle|cup|knife|sword|iron|metal|pan\b|coin|tool|bicycle|kettle|bucket|tray/',
        'soft' => '/cloak|cloth|banner|hat|cap\b|scarf|paper|letter|rope|sack|bag|book|flower|leaf|pillow|towel|flag|skirt|bread/',
    ];

    public static function named(string $name): string
    {
        $name = mb_strtolower($name);
        foreach (self::WORDS as $kind => $words) {
            if (preg_match($words, $name) === 1) {
                return $kind;
            }
        }

        return 'wood';
    }

    /** What a thing is heard to be made of when it lands: wood, metal or soft. */
    public static function lands(string $name): string
    {
        $name = mb_strtolower($name);

        foreach (self::LANDS as $kind => $words) {
            if (preg_match($words, $name) === 1) {
                return $kind;
            }
        }

        return 'wood';
    }
}
