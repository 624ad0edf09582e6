<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * Writes requirements as the Requirements Interchange Format (OMG ReqIF 1.2). The text goes twice: as XHTML for other programs, and
 * as the Markdown it is, from which this product reads the same again.
 */
final readonly class ReqIfWriter
{
    /**
     * @param  string  $title of the specification
     * @param  list<string>  $details names of the details that requirements have
     * @param  \DateTimeImmutable  $at the moment it tells
     */
    public function __construct(private string $title, private array $details, private \DateTimeImmutable $at) {}

    /**
     * @param  list<array{id: string, title: string, text: string, details: array<string, string>, level: int}>  $requirements each
     *   after the one above it, which has the level before
     */
    public function write(array $requirements): string
    {
        $xml = new \XMLWriter();
        $xml->openMemory();
        $xml->setIndent(true);
        $xml->startDocument('1.0', 'UTF-8');
        $xml->startElementNs(null, 'REQ-IF', ReqIfReader::SPACE);
        $xml->writeAttribute('xmlns:xhtml', 'http://www.w3.org/1999/xhtml');
        $this->header($xml);
        $xml->startElement('CORE-CONTENT');
        $xml->startElement('REQ-IF-CONTENT');
        $this->types($xml);
        $xml->startElement('SPEC-OBJECTS');
        foreach ($requirements as $requirement) {
            $this->object($xml, $requirement);
        }
        $xml->endElement();
        $this->hierarchy($xml, $requirements);
        $xml->endElement();
        $xml->endElement();
        $xml->endElement();
        $xml->endDocument();

        return $xml->outputMemory();
    }

    private function header(\XMLWriter $xml): void
    {
        $xml->startElement('THE-HEADER');
        $xml->startElement('REQ-IF-HEADER');
        $xml->writeAttribute('IDENTIFIER', 'header');
        $xml->writeElement('CREATION-TIME', $this->time());
        $xml->writeElement('REQ-IF-TOOL-ID', 'Lucid Step');
        $xml->writeElement('REQ-IF-VERSION', '1.2');
        $xml->writeElement('SOURCE-TOOL-ID', 'Lucid Step');
        $xml->writeElement('TITLE', self::allowed($this->title));
        $xml->endElement();
        $xml->endElement();
    }

    private function types(\XMLWriter $xml): void
    {
        $xml->startElement('DATATYPES');
        $this->named($xml, 'DATATYPE-DEFINITION-STRING', 'type-string', 'Text', ['MAX-LENGTH' => '20000']);
        $xml->endElement();
        $this->named($xml, 'DATATYPE-DEFINITION-XHTML', 'type-xhtml', 'Formatted text');
        $xml->endElement();
        $xml->endElement();
        $xml->startElement('SPEC-TYPES');
        $this->named($xml, 'SPEC-OBJECT-TYPE', 'requirement', 'Requirement');
        $xml->startElement('SPEC-ATTRIBUTES');
        $this->attribute($xml, 'STRING', 'name', 'ReqIF.Name');
        $this->attribute($xml, 'XHTML', 'text', 'ReqIF.Text');
        $this->attribute($xml, 'STRING', 'markdown', ReqIfReader::MARKDOWN);
        foreach ($this->details as $i => $name) {
            $this->attribute($xml, 'STRING', "detail-{$i}", $name);
        }
        $xml->endElement();
        $xml->endElement();
        $this->named($xml, 'SPECIFICATION-TYPE', 'specification-type', 'Specification');
        $xml->endElement();
        $xml->endElement();
    }

    private function attribute(\XMLWriter $xml, string $kind, string $id, string $name): void
    {
        $this->named($xml, "ATTRIBUTE-DEFINITION-{$kind}", $id, $name);
        $xml->startElement('TYPE');
        $xml->writeElement("DATATYPE-DEFINITION-{$kind}-REF", 'STRING' === $kind ? 'type-string' : 'type-xhtml');
        $xml->endElement();
        $xml->endElement();
    }

    /**
     * @param  array<string, string>  $more attributes
     */
    private function named(\XMLWriter $xml, string $element, string $id, string $name, array $more = []): void
    {
        $xml->startElement($element);
        foreach (['IDENTIFIER' => $id, 'LAST-CHANGE' => $this->time(), 'LONG-NAME' => self::allowed($name), ...$more] as $key => $value) {
            $xml->writeAttribute($key, $value);
        }
    }

    /**
     * @param  array{id: string, title: string, text: string, details: array<string, string>, level: int}  $of
     */
    private function object(\XMLWriter $xml, array $of): void
    {
        $this->named($xml, 'SPEC-OBJECT', self::allowed($of['id']), mb_substr($of['title'], 0, 80));
        $xml->startElement('VALUES');
        $this->text($xml, 'name', $of['title']);
        if ('' !== $of['text']) {
            $this->xhtml($xml, $of['text']);
            $this->text($xml, 'markdown', $of['text']);
        }
        foreach ($this->details as $i => $name) {
            if (isset($of['details'][$name])) {
                $this->text($xml, "detail-{$i}", $of['details'][$name]);
            }
        }
        $xml->endElement();
        $xml->startElement('TYPE');
        $xml->writeElement('SPEC-OBJECT-TYPE-REF', 'requirement');
        $xml->endElement();
        $xml->endElement();
    }

    private function text(\XMLWriter $xml, string $definition, string $value): void
    {
        $xml->startElement('ATTRIBUTE-VALUE-STRING');
        // Line breaks in an attribute would be read as blanks.
        $xml->startAttribute('THE-VALUE');
        $xml->writeRaw(
            str_replace(["\n", "\t", "\r"], ['&#10;', '&#9;', '&#13;'], htmlspecialchars(self::allowed($value), \ENT_XML1 | \ENT_QUOTES)),
        );
        $xml->endAttribute();
        $this->defined($xml, 'STRING', $definition);
        $xml->endElement();
    }

    private function xhtml(\XMLWriter $xml, string $markdown): void
    {
        $xml->startElement('ATTRIBUTE-VALUE-XHTML');
        $xml->startElement('THE-VALUE');
        $xml->startElement('xhtml:div');
        foreach (preg_split('/\n{2,}/', trim($markdown)) ?: [] as $paragraph) {
            $xml->startElement('xhtml:p');
            foreach (explode("\n", $paragraph) as $i => $line) {
                if ($i > 0) {
                    $xml->writeElement('xhtml:br');
                }
                $xml->text(self::allowed($line));
            }
            $xml->endElement();
        }
        $xml->endElement();
        $xml->endElement();
        $this->defined($xml, 'XHTML', 'text');
        $xml->endElement();
    }

    private function defined(\XMLWriter $xml, string $kind, string $definition): void
    {
        $xml->startElement('DEFINITION');
        $xml->writeElement("ATTRIBUTE-DEFINITION-{$kind}-REF", $definition);
        $xml->endElement();
    }

    /**
     * @param  list<array{id: string, title: string, text: string, details: array<string, string>, level: int}>  $requirements
     */
    private function hierarchy(\XMLWriter $xml, array $requirements): void
    {
        $xml->startElement('SPECIFICATIONS');
        $this->named($xml, 'SPECIFICATION', 'specification', $this->title);
        $xml->startElement('TYPE');
        $xml->writeElement('SPECIFICATION-TYPE-REF', 'specification-type');
        $xml->endElement();
        $level = -1;
        foreach ($requirements as $i => $of) {
            for (; $level >= $of['level']; $level--) {
                $xml->endElement();
                // Those with the same one above them stand in one list of children.
                if ($level > $of['level']) {
                    $xml->endElement();
                }
            }
            if ($level < $of['level'] && !$this->follows($requirements, $i)) {
                $xml->startElement('CHILDREN');
            }
            $this->named($xml, 'SPEC-HIERARCHY', "place-{$i}", '');
            $xml->startElement('OBJECT');
            $xml->writeElement('SPEC-OBJECT-REF', self::allowed($of['id']));
            $xml->endElement();
            $level = $of['level'];
        }
        for (; $level >= 0; $level--) {
            $xml->endElement();
            $xml->endElement();
        }
        $xml->endElement();
        $xml->endElement();
    }

    /**
     * Whether another of the same level, with the same one above it, stands before it.
     *
     * @param  list<array{id: string, title: string, text: string, details: array<string, string>, level: int}>  $requirements
     */
    private function follows(array $requirements, int $at): bool
    {
        return $at > 0 && $requirements[$at - 1]['level'] >= $requirements[$at]['level'];
    }

    private function time(): string
    {
        return $this->at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z');
    }

    /**
     * Without what XML cannot hold.
     */
    private static function allowed(string $text): string
    {
        return (string) preg_replace('/[^\x{9}\x{A}\x{D}\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]/u', '', $text);
    }
}
