<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Exchange;

use LucidStep\Core\Exchange\CaseColumns;
use LucidStep\Core\Exchange\CaseReader;
use LucidStep\Core\Exchange\CaseRow;
use LucidStep\Core\Exchange\FieldReader;
use LucidStep\Core\Exchange\ForeignHeaders;
use LucidStep\Core\Exchange\ImportContext;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Files of other teams: in their languages, with their words.
 */
final class ForeignFilesTest extends TestCase
{
    private FieldReader $cells;

    /**
     * @return iterable<string, array{list<string>}>
     */
    public static function languages(): iterable
    {
        yield 'German' => [['Titel', 'Vorbedingungen', 'Schritt', 'Testdaten', 'Erwartetes Ergebnis', 'Priorität']];
        yield 'French' => [['Titre', 'Prérequis', 'Étapes', 'Données', 'Résultat attendu', 'Priorité']];
        yield 'Spanish' => [['Título', 'Precondiciones', 'Pasos', 'Datos de prueba', 'Resultado esperado', 'Prioridad']];
        yield 'Italian' => [['Titolo', 'Precondizioni', 'Passi', 'Dati', 'Risultato atteso', 'Priorità']];
        yield 'Dutch' => [['Naam', 'Voorwaarden', 'Stappen', 'Testgegevens', 'Verwacht resultaat', 'Prioriteit']];
        yield 'Polish' => [['Tytuł', 'Warunki wstępne', 'Kroki', 'Dane testowe', 'Oczekiwany wynik', 'Priorytet']];
    }

    /**
     * @param  list<string>  $header
     */
    #[DataProvider('languages')]
    public function test_columns_are_known_by_their_headers_in_common_languages(array $header): void
    {
        self::assertSame(['title', 'preconditions', 'action', 'data', 'expected', 'priority'], CaseColumns::guess($header));
    }

    public function test_columns_are_known_by_what_is_in_them(): void
    {
        $values = [
            ['A sailing is chosen', 'A bike is added', 'The fare is paid'],
            ['Hoch', 'niedrig', 'hoch'],
            ["1. Open\n2. Choose", "1. Open\n2. Add", 'Pay'],
            ['Booking / Sailings', 'Booking / Bikes', 'Fares'],
            ['5m', '12 min', '90s'],
            ['isla@x.test', 'Isla', 'nobody'],
            ['freigegeben', 'Entwurf', 'draft'],
            ['red', 'blue', 'red'],
        ];
        self::assertSame(
            ['title', 'priority', 'action', 'folder', 'estimate', 'owner', 'state', null],
            CaseColumns::guess(array_fill(0, 8, '?'), $values, $this->around()),
        );
        self::assertSame(['title', 'priority'], CaseColumns::guess(['Title', 'Importance'], [['Hoch'], ['Hoch']], $this->around()));
    }

    /**
     * A header that two columns could be known by would make one of them a matter of chance.
     */
    public function test_no_header_is_known_as_two_things(): void
    {
        foreach ([ForeignHeaders::TARGETS, CaseColumns::TARGETS] as $known) {
            $names = array_merge(...array_values($known));
            self::assertSame([], array_keys(array_filter(array_count_values($names), static fn(int $n): bool => $n > 1)));
        }
    }

    public function test_words_mean_what_was_said_else_what_they_mean_elsewhere_and_those_not_known_are_counted(): void
    {
        $around = $this->around(['priority' => ['sofort' => 'critical', 'hoch' => 'low']]);
        $read = $this->read(
            [['A', 'Sofort', 'Entwurf'], ['B', 'hoch', 'x'], ['C', 'mittel', ''], ['D', 'xyz', ''], ['E', 'High', '']],
            $around,
        );
        self::assertSame(
            ['critical', 'low', 'medium', null, 'high'],
            array_map(static fn(CaseRow $r): mixed => $r->fields['priority'] ?? null, $read),
        );
        self::assertSame('draft', $read[0]->fields['state']);
        self::assertSame('priority', $read[3]->errors[0]->column);
        self::assertSame(
            ['priority' => ['Sofort' => 1, 'hoch' => 1, 'mittel' => 1, 'xyz' => 1], 'state' => ['Entwurf' => 1, 'x' => 1]],
            $this->cells->unknown,
        );
        // What the project calls otherwise is not guessed.
        $renamed = new ImportContext(priorities: ['now' => 'now', 'later' => 'later']);
        self::assertNull($renamed->meant('priority', 'hoch'));
    }

    public function test_a_key_of_another_project_is_nobodys_title(): void
    {
        $read = $this->read([['A', '', '', 'BAK-Q1'], ['B', '', '', 'BAK-Q1 Bread is fresh'], ['C', '', '', 'tst-q1, Fares, New one']]);
        self::assertSame('There is no requirement BAK-Q1 here. Write its title behind it, or take it out.', $read[0]->errors[0]->message);
        self::assertSame(
            [null, ['Bread is fresh'], ['tst-q1', 'Fares', 'New one']],
            array_map(static fn(CaseRow $c): mixed => $c->fields['requirements'] ?? null, $read),
        );
    }

    /**
     * @param  list<list<string>>  $rows title, priority, state, requirements
     *
     * @return list<CaseRow>
     */
    private function read(array $rows, ?ImportContext $around = null): array
    {
        $rows = array_map(static fn(array $r): array => array_pad($r, 4, ''), array_combine(range(2, \count($rows) + 1), $rows));
        $reader = new CaseReader(['title', 'priority', 'state', 'requirements'], CaseReader::BY_STEP, $around ?? $this->around());
        $this->cells = $reader->cells;

        return iterator_to_array($reader->cases($rows), false);
    }

    /**
     * @param  array<string, array<string, string>>  $meant
     */
    private function around(array $meant = []): ImportContext
    {
        return new ImportContext(
            people: ['isla@x.test' => 'u1', 'isla' => 'u1'],
            requirements: ['tst-q1' => 'q1', 'fares' => 'q1'],
            meant: $meant,
        );
    }
}
