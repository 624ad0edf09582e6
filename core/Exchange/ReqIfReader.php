<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Coverage\RequirementWords;

/**
 * Reads requirements from the Requirements Interchange Format (OMG ReqIF 1.2): objects with their values, in the hierarchy of the
 * specifications. Nothing outside the file is read, and a file with a document type is refused.
 */
final class ReqIfReader
{
    public const SPACE = 'http://www.omg.org/spec/ReqIF/20110401/reqif.xsd';

    /** How far elements stand in one another at most; hierarchies of requirements are far flatter. */
    private const DEEPEST = 200;

    /** Of names that tell text in this product's own Markdown, which need not be made from XHTML again. */
    public const MARKDOWN = 'LucidStep.Markdown';

    /** @var array<string, string> names of attributes by id */
    private array $names = [];

    /** @var array<string, string> names of enumerated values by id */
    private array $values = [];

    /** @var array<string, array{title: string, values: array<string, string>}> by id */
    private array $objects = [];

    /** @var list<array{string, ?string}> objects in order, each with the one above it */
    private array $order = [];

    /**
     * @param  array<string, string>  $said what attributes mean: a meaning of {@see RequirementSheet}, `detail` or `none`, by name
     *
     * @throws Unreadable when it is no such file, broken, or refers to something outside
     * @return list<RequirementRecord> in the order of the file; `parent` holds the identifier of the one above
     */
    public static function read(string $xml, array $said = []): array
    {
        $reader = new self();
        $reader->load(self::document($xml));

        return $reader->records($said);
    }

    /**
     * @throws Unreadable
     * @return list<string> names of the attributes that objects have
     */
    public static function attributes(string $xml): array
    {
        $reader = new self();
        $reader->load(self::document($xml));

        return array_values(array_unique($reader->names));
    }

    private static function document(string $xml): \DOMElement
    {
        if ('' === trim($xml)) {
            throw Unreadable::because('This is no whole XML file: it is empty.');
        }
        // Entities and other files come by a document type; these files have none.
        if (1 === preg_match('/<!(?:DOCTYPE|ENTITY)/i', $xml)) {
            throw Unreadable::because('This file defines a document type or entities. Save it without, as ReqIF has none.');
        }
        self::checkDepth($xml);
        $document = new \DOMDocument();
        $before = libxml_use_internal_errors(true);
        $loaded = $document->loadXML($xml, \LIBXML_NONET | \LIBXML_COMPACT);
        $error = libxml_get_last_error();
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        $root = $document->documentElement;
        if (!$loaded || null === $root) {
            throw Unreadable::because(
                'This is no whole XML file' . (false === $error ? '.' : ': ' . trim($error->message)),
                false === $error ? 1 : max(1, $error->line),
            );
        }
        if ('REQ-IF' !== $root->localName) {
            throw Unreadable::because("This is no ReqIF file: it begins with <{$root->localName}>.");
        }

        return $root;
    }

    private static function checkDepth(string $xml): void
    {
        $reader = new \XMLReader();
        $before = libxml_use_internal_errors(true);
        $reader->XML($xml, null, \LIBXML_NONET | \LIBXML_PARSEHUGE);
        $deep = false;
        while (!$deep && @$reader->read()) {
            $deep = $reader->depth > self::DEEPEST;
        }
        $reader->close();
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        if ($deep) {
            throw Unreadable::because(\sprintf('Its parts stand more than %d deep in one another; no hierarchy does.', self::DEEPEST));
        }
    }

    private function load(\DOMElement $root): void
    {
        foreach (self::all($root, 'SPEC-OBJECT-TYPE') as $type) {
            foreach ($type->getElementsByTagNameNS('*', '*') as $definition) {
                if (str_starts_with((string) $definition->localName, 'ATTRIBUTE-DEFINITION-') && $definition->hasAttribute('IDENTIFIER')) {
                    $name = $definition->getAttribute('LONG-NAME');
                    $id = $definition->getAttribute('IDENTIFIER');
                    $this->names[$id] = '' === $name ? $id : $name;
                }
            }
        }
        foreach (self::all($root, 'ENUM-VALUE') as $value) {
            $name = $value->getAttribute('LONG-NAME');
            $this->values[$value->getAttribute('IDENTIFIER')] = '' === $name ? $value->getAttribute('IDENTIFIER') : $name;
        }
        foreach (self::all($root, 'SPEC-OBJECT') as $object) {
            $id = $object->getAttribute('IDENTIFIER');
            if ('' === $id) {
                throw Unreadable::because('An object has no identifier.', max(1, $object->getLineNo()));
            }
            if (isset($this->objects[$id])) {
                throw Unreadable::because("Two objects have the identifier {$id}.", max(1, $object->getLineNo()));
            }
            $this->objects[$id] = ['title' => trim($object->getAttribute('LONG-NAME')), 'values' => $this->valuesOf($object)];
        }
        foreach (self::all($root, 'SPECIFICATION') as $specification) {
            $this->below($specification, null);
        }
    }

    /**
     * @return array<string, string> by name of the attribute
     */
    private function valuesOf(\DOMElement $object): array
    {
        $found = [];
        foreach (self::children(self::child($object, 'VALUES')) as $value) {
            $kind = substr((string) $value->localName, \strlen('ATTRIBUTE-VALUE-'));
            $refers = self::children(self::child($value, 'DEFINITION'))[0] ?? null;
            $name = $this->names[trim((string) $refers?->textContent)] ?? null;
            if (null === $name) {
                continue;
            }
            $whole = self::child($value, 'THE-VALUE');
            $found[$name] = match ($kind) {
                'XHTML' => null === $whole ? '' : XhtmlText::markdown($whole),
                'ENUMERATION' => implode(
                    ', ',
                    array_map(
                        fn(\DOMElement $ref): string => $this->values[trim($ref->textContent)] ?? trim($ref->textContent),
                        self::children(self::child($value, 'VALUES')),
                    ),
                ),
                default => $value->getAttribute('THE-VALUE'),
            };
        }

        return $found;
    }

    private function below(\DOMElement $parent, ?string $above): void
    {
        foreach (self::children(self::child($parent, 'CHILDREN')) as $place) {
            $object = self::children(self::child($place, 'OBJECT'))[0] ?? null;
            $id = trim((string) $object?->textContent);
            if (!isset($this->objects[$id])) {
                throw Unreadable::because("The hierarchy names an object that is not there: {$id}.", max(1, $place->getLineNo()));
            }
            $this->order[] = [$id, $above];
            $this->below($place, $id);
        }
    }

    /**
     * @param  array<string, string>  $said
     *
     * @return list<RequirementRecord>
     */
    private function records(array $said): array
    {
        $places = [];
        foreach ($this->order as [$id, $above]) {
            // One that stands in several places counts at the first.
            $places[$id] ??= $above;
        }
        foreach (array_keys($this->objects) as $id) {
            $places[(string) $id] ??= null;
        }
        $records = [];
        foreach ($places as $id => $above) {
            $records[] = new RequirementRecord(\count($records) + 1, '', $this->words((string) $id, $said), (string) $above);
        }

        return $records;
    }

    /**
     * @param  array<string, string>  $said
     */
    private function words(string $id, array $said): RequirementWords
    {
        ['title' => $title, 'values' => $values] = $this->objects[$id];
        $meanings = RequirementSheet::meanings(array_keys($values), $said);
        $of = $details = [];
        foreach (array_values($values) as $i => $value) {
            $name = array_keys($values)[$i];
            $meaning = self::MARKDOWN === $name ? 'none' : $meanings[$i];
            if ('' !== trim($value) && ('title' === $meaning || 'text' === $meaning)) {
                $of[$meaning] ??= trim($value);
            } elseif ('' !== trim($value) && 'none' !== $meaning) {
                $details[$name] = trim($value);
            }
        }
        $text = $values[self::MARKDOWN] ?? ($of['text'] ?? '');
        $title = $of['title'] ?? $title;
        if ('' === $title) {
            $title = mb_substr(trim(explode("\n", $text)[0]), 0, RequirementWords::LONGEST_TITLE);
        }

        return new RequirementWords(trim((string) preg_replace('/\s+/u', ' ', $title)), $text, $id, $details);
    }

    /**
     * @return list<\DOMElement>
     */
    private static function all(\DOMElement $root, string $name): array
    {
        return array_values(iterator_to_array($root->getElementsByTagNameNS('*', $name)));
    }

    private static function child(?\DOMElement $of, string $name): ?\DOMElement
    {
        foreach (self::children($of) as $child) {
            if ($child->localName === $name) {
                return $child;
            }
        }

        return null;
    }

    /**
     * @return list<\DOMElement>
     */
    private static function children(?\DOMElement $of): array
    {
        $found = [];
        foreach ($of->childNodes ?? [] as $node) {
            if ($node instanceof \DOMElement) {
                $found[] = $node;
            }
        }

        return $found;
    }
}
