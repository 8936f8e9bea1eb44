<?php

declare(strict_types=1);

namespace App\Speech;

use App\Assets\BlobStore;
use App\Models\AssetVersion;
use App\Models\Scene;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Reading;
use Illuminate\Support\Facades\DB;
use stdClass;
use Throwable;

/** What voices have read, kept by all that it depends on; what a scene lacks is asked for and never waited for. */
final class Readings
{
    /** Seconds after which what was asked for is asked for once more: its worker is gone. */
    private const LOST = 120;

    public function __construct(
        private readonly BlobStore $blobs, private readonly LineReader $reader, private readonly RecordingReader $recordings,
    ) {
    }

    /** @return array<int, Wish> of a scene's lines that have something to say, by line */
    public static function wishes(Scene $scene): array
    {
        $lines = DB::table('lines')->where(
            'scene_id', $scene->id,
        )->orderBy('id')->get(['id', 'item_id', 'text', 'delivery', 'pace', 'voice']);
        if ($lines->isEmpty()) {
            return [];
        }
        $voices = self::voices($scene);
        $recorded = self::recorded($scene);
        $sayAs = json_decode((string) DB::table('productions')->where('id', $scene->production_id)->value('say_as'), true);
        $out = [];
        foreach ($lines as $line) {
            $voice = VoiceBook::find((string) $line->voice) ?? $voices[(int) $line->item_id] ?? null;
            $text = SayAs::of((string) $line->text, is_array($sayAs) ? $sayAs : []);
            $own = $recorded[(int) $line->id] ?? null;
            if ($voice !== null && ($own !== null || trim($text) !== '')) {
                $out[(int) $line->id] = new Wish($text, $voice, (string) $line->delivery, (float) $line->pace, $own);
            }
        }

        return $out;
    }

    /** @return array<int, Recorded> what lines are heard as that somebody has recorded, by line */
    private static function recorded(Scene $scene): array
    {
        $out = [];
        $takes = DB::table('takes')->where('scene_id', $scene->id)->where('chosen', true)->orderBy('id')->get()->all();
        $blobs = $takes === [] ? [] : AssetVersion::query()->whereIn(
            'asset_id', array_map(static fn (stdClass $t): int => (int) $t->asset_id, $takes),
        )
            ->orderBy('number')->pluck('blob', 'asset_id')->all();
        foreach ($takes as $t) {
            $second = static fn (mixed $v): ?float => $v === null ? null : (float) $v;
            $out[(int) $t->line_id] = new Recorded((string) $blobs[$t->asset_id], $second($t->source_in), $second($t->source_out));
        }

        return $out;
    }

    /** @return array<int, VoiceCard> each performer's own voice, or one that suits; by item */
    public static function voices(Scene $scene): array
    {
        $rows = DB::table('items')->join('assets', 'assets.id', '=', 'items.asset_id')->where('items.scene_id', $scene->id)
            ->where('items.kind', 'performer')->orderBy('items.id')->get(['items.id', 'items.voice', 'assets.tags']);
        $own = $without = [];
        foreach ($rows as $row) {
            $card = VoiceBook::find((string) $row->voice);
            if ($card !== null) {
                $own[(int) $row->id] = $card;
            } else {
                $tags = json_decode((string) $row->tags, true);
                $without[(int) $row->id] = is_array($tags) ? array_values(array_filter($tags, is_string(...))) : [];
            }
        }
        $taken = array_map(static fn (VoiceCard $c): string => $c->id, array_values($own));

        return $own + VoiceBook::cast($without, $taken);
    }

    /**
     * @param  array<int, Wish>  $wishes
     * @return array<string, stdClass> rows by key
     */
    public static function rows(array $wishes): array
    {
        $keys = array_values(array_unique(array_map(static fn (Wish $w): string => $w->key, $wishes)));
        $out = [];
        foreach ($keys === [] ? [] : DB::table('readings')->whereIn('key', $keys)->get() as $row) {
            $out[(string) $row->key] = $row;
        }

        return $out;
    }

    /** Whether a sound is one that a line of the scene is heard as. */
    public static function isOf(Scene $scene, string $sound): bool
    {
        return in_array($sound, array_map(static fn (stdClass $r): string => (string) $r->sound, self::rows(self::wishes($scene))), true);
    }

    /**
     * What a scene's document says of its lines: assets with sound and times, and which line was read as which.
     *
     * @return array{array<string, array<string, string>>, array<string, string>} assets by id, and their ids by the line's
     */
    public static function ofDocument(Scene $scene): array
    {
        $wishes = self::wishes($scene);
        $rows = self::rows($wishes);
        $assets = $of = [];
        foreach ($wishes as $line => $wish) {
            $row = $rows[$wish->key] ?? null;
            if ($row !== null && $row->sound !== null && $row->digest !== null) {
                $id = 'r'.substr($wish->key, 0, 24);
                $assets[$id] = [
                    'id' => $id, 'kind' => 'reading', 'name' => mb_strimwidth($wish->text, 0, 60, '…'), 'blob' => (string) $row->sound,
                    'digest' => (string) $row->digest,
                ];
                $of["d{$line}"] = $id;
            }
        }

        return [$assets, $of];
    }

    /** Puts in the queue what no voice has read yet. */
    public static function ask(Scene $scene, ?int $person = null): int
    {
        return self::askFor($scene->id, self::wishes($scene), $person);
    }

    /**
     * The same of wishes that are known.
     *
     * @param  array<int, Wish>  $wishes  by line
     * @param  bool  $ahead  the lines may not be there yet
     */
    public static function askFor(int $scene, array $wishes, ?int $person = null, bool $ahead = false): int
    {
        $rows = self::rows($wishes);
        $asked = 0;
        foreach ($wishes as $line => $wish) {
            $row = $rows[$wish->key] ?? null;
            if ($row !== null && ($row->sound !== null || $row->problem !== null)) {
                continue;
            }
            // Asked for once, however many look at it at the same time.
            $isNew = $row === null && DB::table('readings')->insertOrIgnore(['key' => $wish->key, 'asked_at' => now()]) > 0;
            $isLost = $row !== null && DB::table('readings')->where('key', $wish->key)->whereNull('sound')
                ->where('asked_at', '<', now()->subSeconds(self::LOST))->update(['asked_at' => now()]) > 0;
            if ($isNew || $isLost) {
                ReadLine::dispatch($scene, $line, $wish->key, $person, $ahead ? $wish : null)->onQueue('voice');
                $asked++;
            }
            // The same words twice in one scene are one reading.
            $rows[$wish->key] ??= (object) ['sound' => null, 'problem' => ''];
        }

        return $asked;
    }

    /**
     * Whether voices have read all of them.
     *
     * @param  array<int, Wish>  $wishes
     */
    public static function areRead(array $wishes): bool
    {
        $rows = self::rows($wishes);

        return array_filter($wishes, static fn (Wish $w): bool => ($rows[$w->key]->sound ?? null) === null) === [];
    }

    /** Reads a line and keeps what came of it, or why nothing did. */
    public function make(Wish $wish): void
    {
        if (DB::table('readings')->where('key', $wish->key)->whereNotNull('sound')->exists()) {
            return;
        }
        try {
            [$wave, $reading, $source] = $this->heard($wish);
        } catch (NoVoice $e) {
            self::refuse($wish->key, $e->getMessage());

            return;
        }
        $sound = $this->blobs->put($wave->toWav());
        $digest = $this->blobs->put(json_encode(
            ['reading' => $reading->toArray()] + ($source === null ? [] : ['source' => $source]),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
        ));
        DB::table('readings')->updateOrInsert(['key' => $wish->key], [
            'sound' => $sound, 'digest' => $digest, 'seconds' => $reading->seconds, 'problem' => null,
        ]);
    }

    /**
     * @return array{Wave, Reading, array{from: float, to: float, seconds: float}|null} the sound, its times, and where a recording has it
     *
     * @throws NoVoice
     */
    private function heard(Wish $wish): array
    {
        if ($wish->recorded !== null) {
            return $this->recordings->read($wish, $wish->recorded, $this->blobs->get($wish->recorded->blob));
        }
        $take = $this->reader->read($wish);

        return [$take->wave, new Reading(
            $take->wave->seconds(), $take->phones, $take->words, LineReader::loudness($take->wave), events: $take->events,
        ), null];
    }

    public static function refuse(string $key, string $problem): void
    {
        DB::table('readings')->where('key', $key)->whereNull('sound')->update(['problem' => mb_substr($problem, 0, 400)]);
    }

    /** What nobody wants any more is as if it had not been asked for. */
    public static function forget(string $key): void
    {
        DB::table('readings')->where('key', $key)->whereNull('sound')->delete();
    }

    /** Reads all that a scene lacks, here and now: for commands, which may wait. */
    public function makeAll(Scene $scene): int
    {
        $made = 0;
        $wishes = self::wishes($scene);
        $rows = self::rows($wishes);
        foreach ($wishes as $wish) {
            if (($rows[$wish->key]->sound ?? null) === null) {
                $rows[$wish->key] = (object) ['sound' => ''];
                DB::table('readings')->insertOrIgnore(['key' => $wish->key, 'asked_at' => now()]);
                try {
                    $this->make($wish);
                    $made++;
                } catch (Throwable $e) {
                    self::refuse($wish->key, 'The voice stopped: '.$e->getMessage());
                }
            }
        }

        return $made;
    }
}
