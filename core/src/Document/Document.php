<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A whole scene as immutable values. Its JSON form is the portable scene file (core/resources/scene.schema.json). */
final readonly class Document
{
    public const FORMAT = 'crisp-reel/scene';

    public const VERSION = 1;

    /**
     * @param  array<string, AssetRef>  $assets
     * @param  array<string, Item>  $items
     * @param  list<Beat>  $beats
     * @param  list<Link>  $links
     * @param  array<string, Camera>  $cameras
     * @param  list<Shot>  $shots  in reel order
     * @param  list<TouchUp>  $touchUps
     * @param  list<Contact>  $contacts
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
            self::windOf($in->child('wind')),
        );
        $document->checkReferences();

        return $document;
    }

    private static function windOf(Input $w): Wind
    {
        $default = new Wind;

        return new Wind(
            $w->number('towardsDeg', $default->towardsDeg, -3600, 3600),
            $w->number('speed', $default->speed, 0, 40),
            $w->number('gusts', $default->gusts, 0, 1),
            $w->whole('seed', $default->seed, 0, 1_000_000),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'format' => self::FORMAT, 'version' => self::VERSION, 'name' => $this->name, 'rate' => [$this->rate->num, $this->rate->den],
            'width' => $this->width, 'height' => $this->height, 'mood' => $this->mood, 'wind' => $this->wind->toArray(),
            'assets' => array_map(static fn (AssetRef $v): array => $v->toArray(), array_values($this->assets)),
            'items' => array_map(static fn (Item $v): array => $v->toArray(), array_values($this->items)),
            'beats' => array_map(static fn (Beat $v): array => $v->toArray(), array_values($this->beats)),
            'links' => array_map(static fn (Link $v): array => $v->toArray(), array_values($this->links)),
            'cameras' => array_map(static fn (Camera $v): array => $v->toArray(), array_values($this->cameras)),
            'shots' => array_map(static fn (Shot $v): array => $v->toArray(), array_values($this->shots)),
            'touchUps' => array_map(static fn (TouchUp $v): array => $v->toArray(), $this->touchUps),
            'contacts' => array_map(static fn (Contact $v): array => $v->toArray(), $this->contacts),
        ];
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

    private function checkReferences(): void
    {
        $need = static function (string $where, string $id, array $among, string $what): void {
            if (! isset($among[$id])) {
                throw UnableToReadDocument::at($where, "there is no {$what} \"{$id}\"");
            }
        };
        foreach ($this->items as $i) {
            $need("items/{$i->id}/asset", $i->asset, $this->assets, 'asset');
            if ($i->route?->by !== null) {
                $need("items/{$i->id}/route/by", $i->route->by, $this->items, 'item');
            }
        }
        foreach ($this->beats as $b) {
            $need("beats/{$b->id}/item", $b->item, $this->items, 'item');
            $need("beats/{$b->id}/motion", $b->motion, $this->assets, 'asset');
        }
        foreach ($this->links as $l) {
            $need("links/{$l->id}/child", $l->child, $this->items, 'item');
            $need("links/{$l->id}/parent", $l->parent, $this->items, 'item');
        }
        foreach ($this->touchUps as $t) {
            $need("touchUps/{$t->id}/item", $t->item, $this->items, 'item');
        }
        foreach ($this->contacts as $c) {
            $need("contacts/{$c->id}/item", $c->item, $this->items, 'item');
            if ($c->target !== null) {
                $need("contacts/{$c->id}/target", $c->target, $this->items, 'item');
            }
        }
        foreach ($this->shots as $s) {
            $need("shots/{$s->id}/camera", $s->camera, $this->cameras, 'camera');
        }
    }
}
