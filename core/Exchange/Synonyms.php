<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * What the words of columns are called in common languages (German, French, Spanish, Italian, Portuguese, Dutch, Polish,
 * Swedish), beside English. All in lower case.
 */
final class Synonyms
{
    public const YES = ['yes', 'true', '1', 'y', 'x', 'ja', 'oui', 'sí', 'si', 'sì', 'sim', 'tak', 'wahr', 'vrai'];

    /** Words of cells by column, and by the word of this casebook that they mean. */
    private const WORDS = [
        'priority' => [
            'critical' => [
                'kritisch',
                'dringend',
                'sehr hoch',
                'highest',
                'very high',
                'urgent',
                'critique',
                'crítica',
                'crítico',
                'critica',
                'critico',
                'krytyczny',
                'kritisk',
            ],
            'high' => ['hoch', 'haute', 'élevée', 'haut', 'alta', 'alto', 'hoog', 'wysoki', 'hög', 'major', 'important'],
            'medium' => [
                'mittel',
                'normal',
                'moyenne',
                'moyen',
                'media',
                'medio',
                'média',
                'médio',
                'gemiddeld',
                'middel',
                'średni',
                'medel',
                'moderate',
            ],
            'low' => [
                'niedrig',
                'gering',
                'lowest',
                'very low',
                'minor',
                'trivial',
                'basse',
                'faible',
                'baja',
                'bajo',
                'bassa',
                'basso',
                'baixa',
                'baixo',
                'laag',
                'niski',
                'låg',
            ],
        ],
        'state' => [
            'draft' => [
                'entwurf',
                'neu',
                'new',
                'open',
                'brouillon',
                'borrador',
                'bozza',
                'rascunho',
                'concept',
                'szkic',
                'utkast',
                'in design',
            ],
            'in_review' => [
                'review',
                'in prüfung',
                'zu prüfen',
                'under review',
                'en revue',
                'en revisión',
                'in revisione',
                'em revisão',
                'w przeglądzie',
                'granskas',
            ],
            'approved' => [
                'freigegeben',
                'genehmigt',
                'ready',
                'active',
                'approuvé',
                'aprobado',
                'approvato',
                'aprovado',
                'goedgekeurd',
                'zatwierdzony',
                'godkänd',
            ],
            'retired' => [
                'veraltet',
                'obsolete',
                'deprecated',
                'inactive',
                'archiviert',
                'archived',
                'obsolète',
                'obsoleto',
                'verouderd',
                'nieaktualny',
                'utgått',
            ],
        ],
        'type' => [
            'functional' => ['funktional', 'funktionell', 'fonctionnel', 'funcional', 'funzionale', 'functioneel', 'funkcjonalny'],
            'regression' => ['regressionstest', 'régression', 'regresión', 'regressione', 'regressão', 'regresja'],
            'usability' => ['gebrauchstauglichkeit', 'utilisabilité', 'usabilidad', 'usabilità', 'usabilidade', 'bruikbaarheid'],
            'performance' => ['leistung', 'last', 'rendimiento', 'prestazioni', 'desempenho', 'prestaties', 'wydajność', 'prestanda'],
            'security' => ['sicherheit', 'sécurité', 'seguridad', 'sicurezza', 'segurança', 'beveiliging', 'bezpieczeństwo', 'säkerhet'],
        ],
    ];

    /**
     * @param  array<string, string>  $known values by name in lower case
     *
     * @return ?string the value of what the word means, where the project has that
     */
    public static function meant(string $column, string $word, array $known): ?string
    {
        foreach (self::WORDS[$column] ?? [] as $name => $words) {
            if (\in_array(mb_strtolower(trim($word)), $words, true)) {
                return $known[$name] ?? null;
            }
        }

        return null;
    }
}
