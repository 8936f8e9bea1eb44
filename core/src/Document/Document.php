<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Refs;

/** A whole scene as immutable values. Its JSON form is the portable scene file (core/resources/scene.schema.json). */
final readonly class Document
{
    public const FORMAT = 'crisp-reel/scene';

    public const VERSION = 1;

    /** The kinds of rows that a scene has, by the name of their list. */
    public const ROWS = [
        'items' => Item::class, 'beats' => Beat::class, 'links' => Link::class, 'cameras' => Camera::class, 'shots' => Shot::class,
        'touchUps' => TouchUp::class, 'contacts' => Contact::class, 'framings' => Framing::class,
        'lines' => Line::class, 'takes' => Take::class, 'expressions' => Expression::class, 'sounds' => Sound::class,
    ];

    /**
     * @param  array<string, AssetRef>  $assets
     * @param  array<string, Item>  $items
     * @param  list<Beat>  $beats
     * @param  list<Link>  $links
     * @param  array<string, Camera>  $cameras
     * @param  list<Shot>  $shots  in reel order
     * @param  list<TouchUp>  $touchUps
     * @param  list<Contact>  $contacts
     * @param  list<Framing>  $framings
     * @param  list<Line>  $lines
     * @param  list<Expression>  $expressions
     * @param  list<Sound>  $sounds
     * @param  list<Take>  $takes
     */
    public function __construct(
        public string $name,
        public Rate $rate,
        public int $width,
        public int $height,
        public string $mood,
        public array $assets,
        public array $items,
        public array $beats,
        public array $links,
        public array $cameras,
        public array $shots,
        public array $touchUps = [],
        public array $contacts = [],
        public Wind $wind = new Wind,
        public array $framings = [],
        public array $lines = [],
        public array $expressions = [],
        public array $sounds = [],
        public array $takes = [],
        public Mix $mix = new Mix,
    ) {
    }

    /**
     * @param  array<array-key, mixed>  $data
     *
     * @throws UnableToReadDocument
     */
    public static function fromArray(array $data): self
    {
        $in = new Input($data);
        $in->choice('format', [self::FORMAT]);
        if ($in->whole('version', null, 1) > self::VERSION) {
            throw UnableToReadDocument::at('version', 'this scene was made by a newer version', 'Update Crisp Reel and open it again.');
        }
        $rate = $data['rate'] ?? [24, 1];
        if (! is_array($rate) || ! is_int($rate[0] ?? null) || ! is_int($rate[1] ?? null)) {
            throw UnableToReadDocument::at('rate', 'two whole numbers belong here');
        }
        $document = new self(
            $in->text('name', ''), new Rate($rate[0], $rate[1]), $in->whole('width', 1280, 16, 8192), $in->whole('height', 720, 16, 8192),
            $in->choice('mood', Moods::names(), 'neutral'),
            self::keyed($in, 'assets', AssetRef::from(...)), self::keyed($in, 'items', Item::from(...)),
            array_map(Beat::from(...), $in->each('beats')), array_map(Link::from(...), $in->each('links')),
            self::keyed($in, 'cameras', Camera::from(...)), array_map(Shot::from(...), $in->each('shots')),
            array_map(TouchUp::from(...), $in->each('touchUps')), array_map(Contact::from(...), $in->each('contacts')),
            Wind::from($in->child('wind')), array_map(Framing::from(...), $in->each('framings')),
            array_map(Line::from(...), $in->each('lines')), array_map(Expression::from(...), $in->each('expressions')),
            array_map(Sound::from(...), $in->each('sounds')), array_map(Take::from(...), $in->each('takes')),
            Mix::from($in->child('mix')),
        );
        $document->checkReferences();

        return $document;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'format' => self::FORMAT, 'version' => self::VERSION, 'name' => $this->name, 'rate' => [$this->rate->num, $this->rate->den],
            'width' => $this->width, 'height' => $this->height, 'mood' => $this->mood, 'wind' => $this->wind->toArray(),
            'mix' => $this->mix->toArray(),
            'assets' => array_map(FieldList::write(...), array_values($this->assets)),
        ] + array_map(fn (string $key): array => array_map(FieldList::write(...), array_values($this->rows($key))), self::lists());
    }

    /** @param  list<Beat>  $beats */
    public function withBeats(array $beats): self
    {
        return new self(
            $this->name, $this->rate, $this->width, $this->height, $this->mood, $this->assets, $this->items, $beats, $this->links,
            $this->cameras, $this->shots, $this->touchUps, $this->contacts, $this->wind, $this->framings, $this->lines, $this->expressions,
            $this->sounds, $this->takes, $this->mix,
        );
    }

    /** A beat by its id; null: there is none, as where its row was taken out. */
    public function beat(string $id): ?Beat
    {
        foreach ($id === '' ? [] : $this->beats as $b) {
            if ($b->id === $id) {
                return $b;
            }
        }

        return null;
    }

    /** The same values give the same text, byte for byte. */
    public function toJson(): string
    {
        return json_encode(
            $this->toArray(),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION,
        );
    }

    public static function fromJson(string $json): self
    {
        try {
            $data = json_decode($json, true, 64, JSON_THROW_ON_ERROR);
        } catch (\JsonException $e) {
            throw UnableToReadDocument::at('file', 'it is not JSON ('.strtolower($e->getMessage()).')');
        }

        return self::fromArray(is_array($data) ? $data : throw UnableToReadDocument::at('file', 'it is not a JSON object'));
    }

    /**
     * @template T of AssetRef|Item|Camera
     *
     * @param  callable(Input): T  $make
     * @return array<string, T>
     */
    private static function keyed(Input $in, string $key, callable $make): array
    {
        $out = [];
        foreach ($in->each($key) as $i => $entry) {
            $value = $make($entry);
            if (isset($out[$value->id])) {
                throw UnableToReadDocument::at($in->path("{$key}/{$i}"), "the id \"{$value->id}\" is used twice");
            }
            $out[$value->id] = $value;
        }

        return $out;
    }

    /** @return array<string, string> the name of each list of rows by itself */
    private static function lists(): array
    {
        $names = array_keys(self::ROWS);

        return array_combine($names, $names);
    }

    /** @return array<int|string, object> the rows of one list of ROWS */
    public function rows(string $list): array
    {
        /** @var array<int|string, object> $rows */
        $rows = $this->{$list};

        return $rows;
    }

    private function checkReferences(): void
    {
        $there = [AssetRef::class => $this->assets];
        foreach (self::ROWS as $list => $class) {
            $there[$class] = array_column($this->rows($list), null, 'id');
        }
        foreach (self::ROWS as $list => $class) {
            foreach (array_column($this->rows($list), null, 'id') as $id => $row) {
                self::checkRefs($row, "{$list}/{$id}", $there);
            }
        }
    }

    /** @param  array<class-string, array<int|string, object>>  $there  what can be referred to, by its id */
    private static function checkRefs(object $value, string $where, array $there): void
    {
        foreach (FieldList::of($value::class) as $f) {
            $held = $value->{$f->name};
            if ($f->field instanceof Part && is_object($held)) {
                self::checkRefs($held, "{$where}/{$f->name}", $there);
            } elseif ($f->field instanceof Ref || $f->field instanceof Refs) {
                foreach (array_diff(array_filter((array) $held, is_string(...)), array_keys($there[$f->field->to])) as $id) {
                    $what = $f->field->to === AssetRef::class ? 'asset' : FieldList::row($f->field->to)->word;
                    throw UnableToReadDocument::at("{$where}/{$f->name}", "there is no {$what} \"{$id}\"");
                }
            }
        }
    }
}
