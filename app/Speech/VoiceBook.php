<?php

declare(strict_types=1);

namespace App\Speech;

/** The house's voices, and which of them suits whom by itself. Names are those of things on a quay: nobody's. */
final class VoiceBook
{
    /** Languages beside English that the wider of the two programs reads, with what they are called. */
    private const LANGUAGES = [
        'de' => 'German', 'fr' => 'French', 'es' => 'Spanish', 'it' => 'Italian', 'nl' => 'Dutch', 'pl' => 'Polish', 'pt' => 'Portuguese',
        'sv' => 'Swedish', 'da' => 'Danish', 'nb' => 'Norwegian', 'fi' => 'Finnish', 'cs' => 'Czech', 'hu' => 'Hungarian',
        'ro' => 'Romanian',
        'el' => 'Greek', 'tr' => 'Turkish', 'ru' => 'Russian', 'uk' => 'Ukrainian', 'ar' => 'Arabic', 'fa' => 'Persian', 'hi' => 'Hindi',
        'ja' => 'Japanese', 'cmn' => 'Mandarin', 'ko' => 'Korean', 'vi' => 'Vietnamese', 'id' => 'Indonesian', 'sw' => 'Swahili',
    ];

    /** @var array<string, VoiceCard>|null */
    private static ?array $cards = null;

    /** @return array<string, VoiceCard> by id */
    public static function all(): array
    {
        if (self::$cards === null) {
            $all = [
                new VoiceCard('lantern', 'Lantern', 'clear, a grown woman', 'flite', 'slt', 'en', ['woman']),
                new VoiceCard(
                    'wool', 'Wool', 'soft and low, an older woman', 'flite', 'slt', 'en', ['woman', 'old'], 0.84, 0.96, 0.92, 1.15,
                ),
                new VoiceCard('gull', 'Gull', 'bright and quick, a young woman', 'flite', 'slt', 'en', ['woman'], 1.13, 1.05, 1.08, 1.2),
                new VoiceCard('oak', 'Oak', 'steady and deep, a grown man', 'flite', 'rms', 'en', ['man']),
                new VoiceCard('keel', 'Keel', 'big and slow, a heavy man', 'flite', 'rms', 'en', ['man', 'old'], 0.86, 0.90, 0.93, 0.9),
                new VoiceCard('brine', 'Brine', 'rough, with another accent, a man', 'flite', 'awb', 'en', ['man']),
                new VoiceCard('pipe', 'Pipe', 'thin and dry, an old man', 'flite', 'awb', 'en', ['man', 'old'], 1.12, 1.04, 0.88, 1.25),
                new VoiceCard('rope', 'Rope', 'plain and quick, a young man', 'flite', 'rms', 'en', ['man'], 1.18, 1.04, 1.10, 1.2),
                new VoiceCard('pebble', 'Pebble', 'a child', 'flite', 'slt', 'en', ['child'], 1.42, 1.20, 0.98, 1.35),
                new VoiceCard('sprat', 'Sprat', 'a lively small child', 'flite', 'slt', 'en', ['child'], 1.62, 1.28, 1.05, 1.5),
                new VoiceCard('slate', 'Slate', 'British, a man', 'espeak', 'en', 'en-GB', ['man']),
                new VoiceCard('kiln', 'Kiln', 'Scottish, a man', 'espeak', 'en-GB-scotland', 'en-GB', ['man']),
                new VoiceCard('moor', 'Moor', 'British, a woman', 'espeak', 'en+f3', 'en-GB', ['woman']),
                new VoiceCard('cove', 'Cove', 'Caribbean English, a man', 'espeak', 'en-029', 'en', ['man']),
            ];
            foreach (self::LANGUAGES as $code => $name) {
                $all[] = new VoiceCard(
                    "{$code}-w", "{$name}, a woman", strtolower($name).', a woman', 'espeak', "{$code}+f2", $code, ['woman'],
                );
                $all[] = new VoiceCard("{$code}-m", "{$name}, a man", strtolower($name).', a man', 'espeak', $code, $code, ['man']);
            }
            $all[] = new VoiceCard('tones', 'Tones', 'tones in place of sounds, for measuring', 'tones', 'tones', 'und', []);
            self::$cards = array_combine(array_map(static fn (VoiceCard $c): string => $c->id, $all), $all);
        }

        return self::$cards;
    }

    public static function find(string $id): ?VoiceCard
    {
        return self::all()[$id] ?? null;
    }

    /**
     * Voices for people who have none of their own: of their kind, and each another as far as there are.
     *
     * @param  array<int|string, list<string>>  $tags  what is known of each figure
     * @param  list<string>  $taken  voices that somebody has already
     * @return array<int|string, VoiceCard> by the same keys
     */
    public static function cast(array $tags, array $taken = []): array
    {
        $out = [];
        foreach ($tags as $who => $known) {
            $wanted = self::wanted($known, $who);
            $fits = array_filter(self::all(), static fn (VoiceCard $c): bool => $c->language === 'en' && $c->engine === 'flite'
                && in_array($wanted, $c->suits, true));
            $isOld = in_array('old', $known, true);
            // First who is neither taken nor of another age, then not taken, then whoever.
            uasort($fits, static fn (VoiceCard $a, VoiceCard $b): int => [
                in_array($a->id, $taken, true), in_array('old', $a->suits, true) !== $isOld,
            ] <=> [in_array($b->id, $taken, true), in_array('old', $b->suits, true) !== $isOld]);
            $card = array_values($fits)[0] ?? self::all()['oak'];
            $taken[] = $card->id;
            $out[$who] = $card;
        }

        return $out;
    }

    /**
     * @param  list<string>  $tags
     * @return "woman"|"man"|"child"
     */
    private static function wanted(array $tags, int|string $who): string
    {
        return match (true) {
            in_array('child', $tags, true) => 'child', in_array('beard', $tags, true) => 'man',
            array_intersect($tags, ['dress', 'plaits', 'bun', 'woman']) !== [] => 'woman',
            array_intersect($tags, ['man', 'bald']) !== [] => 'man', default => crc32((string) $who) % 2 === 0 ? 'man' : 'woman',
        };
    }
}
