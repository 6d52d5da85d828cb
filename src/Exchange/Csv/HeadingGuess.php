<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

/** What a heading of somebody else's file probably means. */
final readonly class HeadingGuess
{
    /**
     * Other words for our columns, as files of other programs and other languages have them; without blanks and marks.
     * Common practice, no source.
     */
    private const WORDS = [
        'code' => ['itemcode', 'itemno', 'itemnumber', 'articleno', 'article', 'articlenumber', 'partno', 'productcode',
            'stockcode', 'artikelnummer', 'artikelnr', 'artnr', 'reference', 'codearticle', 'kod', 'kodtowaru',
            'indeks',
            'suppliercode', 'suppliernumber', 'lieferantennummer', 'codefournisseur', 'shortcode', 'number', 'nummer'],
        'item' => ['code', 'itemcode', 'itemno', 'itemnumber', 'articleno', 'article', 'articlenumber', 'productcode',
            'stockcode', 'artikel', 'artikelnummer', 'artikelnr', 'artnr', 'codearticle', 'kodtowaru', 'indeks',
            'ourcode'],
        'name' => ['description', 'itemname', 'itemdescription', 'title', 'productname', 'bezeichnung',
            'artikelbezeichnung',
            'beschreibung', 'designation', 'libelle', 'nazwa', 'nazwatowaru', 'suppliername', 'company', 'firma'],
        'category' => ['group', 'itemgroup', 'productgroup', 'family', 'type', 'warengruppe', 'kategorie', 'gruppe',
            'categorie', 'famille', 'grupa', 'kategoria'],
        'unit' => ['uom', 'unitofmeasure', 'stockunit', 'einheit', 'mengeneinheit', 'me', 'unite', 'jednostka', 'jm'],
        'gtin' => ['ean', 'ean13', 'eancode', 'barcode', 'upc', 'strichcode', 'codebarres', 'kodkreskowy'],
        'sales_price' => ['price', 'salesprice', 'retailprice', 'sellingprice', 'rrp', 'verkaufspreis', 'vkpreis', 'vk',
            'prixdevente', 'cenasprzedazy', 'cena'],
        'weight_kg' => ['weight', 'kg', 'gewicht', 'gewichtkg', 'poids', 'waga'],
        'average_cost' => ['cost', 'unitcost', 'avgcost', 'purchaseprice', 'einkaufspreis', 'ekpreis', 'ek',
            'prixdachat',
            'koszt', 'cenazakupu'],
        'further_names' => ['alias', 'othernames', 'synonyms', 'suchbegriffe'],
        'customs_number' => ['hscode', 'commoditycode', 'tariffnumber', 'zolltarifnummer', 'codedouanier', 'kodcn'],
        'tariff_number' => ['hscode', 'commoditycode', 'customsnumber', 'zolltarifnummer', 'codedouanier'],
        'origin' => ['countryoforigin', 'ursprungsland', 'ursprung', 'paysdorigine', 'krajpochodzenia'],
        'sites' => ['site', 'stockedat', 'warehouses', 'lager'],
        'site' => ['warehouse', 'location', 'store', 'shop', 'branch', 'lager', 'lagerort', 'filiale', 'depot',
            'magasin',
            'entrepot', 'magazyn', 'sklep'],
        'quantity' => ['qty', 'amount', 'units', 'count', 'sold', 'onhand', 'stock', 'menge', 'anzahl', 'bestand',
            'stueck',
            'stuck', 'quantite', 'ilosc', 'stan'],
        'day' => ['date', 'datum', 'tag', 'jour', 'data', 'dzien', 'soldon', 'wantedon', 'by', 'duedate', 'validfrom'],
        'lot' => ['batch', 'lotnumber', 'batchnumber', 'charge', 'chargennummer', 'numerodelot', 'partia'],
        'expires' => ['expiry', 'expirydate', 'bestbefore', 'useby', 'mhd', 'haltbarbis', 'dlc', 'peremption',
            'datawaznosci'],
        'supplier' => ['vendor', 'suppliercode', 'lieferant', 'lieferantennummer', 'fournisseur', 'dostawca'],
        'supplier_code' => ['theircode', 'supplieritemcode', 'supplierpartnumber', 'suppliersku', 'vendorcode',
            'bestellnummer', 'lieferantenartikelnummer', 'referencefournisseur', 'koddostawcy'],
        'pack' => ['packname', 'packaging', 'purchaseunit', 'gebinde', 'verpackung', 've', 'conditionnement',
            'opakowanie'],
        'content' => ['packsize', 'packcontent', 'unitsperpack', 'inhalt', 'packungsinhalt', 'contenu', 'zawartosc'],
        'prices' => ['price', 'unitprice', 'listprice', 'packprice', 'preis', 'einkaufspreis', 'listenpreis', 'prix',
            'cena'],
        'minimum' => ['moq', 'minimumorder', 'minqty', 'mindestmenge', 'minimumdecommande', 'minimalnailosc'],
        'lead_days' => ['leadtime', 'deliverydays', 'lieferzeit', 'delai', 'czasdostawy'],
        'currency' => ['curr', 'waehrung', 'wahrung', 'devise', 'waluta'],
        'rate' => ['exchangerate', 'kurs', 'wechselkurs', 'taux', 'cours'],
        'contact' => ['contactname', 'contactperson', 'ansprechpartner', 'kontakt', 'interlocuteur', 'osobakontaktowa'],
        'email' => ['mail', 'emailaddress', 'orderemail', 'courriel', 'adresemail'],
        'phone' => ['telephone', 'tel', 'phonenumber', 'telefon'],
        'street' => ['address', 'address1', 'addressline1', 'strasse', 'adresse', 'rue', 'ulica', 'adres'],
        'postcode' => ['zip', 'zipcode', 'postalcode', 'plz', 'codepostal', 'kodpocztowy'],
        'city' => ['town', 'ort', 'stadt', 'ville', 'miasto'],
        'country' => ['countrycode', 'land', 'pays', 'kraj'],
        'net_days' => ['paymentterms', 'paymentdays', 'termsdays', 'zahlungsziel', 'delaidepaiement',
            'terminplatnosci'],
        'customer' => ['customername', 'client', 'kunde', 'klient'],
        'reference' => ['ref', 'orderno', 'salesorder', 'auftrag', 'auftragsnummer', 'commande', 'zamowienie'],
        'out_of_stock' => ['stockout', 'soldout', 'ausverkauft', 'rupture', 'brak'],
    ];

    private function __construct()
    {
    }

    /**
     * @param list<string>          $headings as they stand in the file
     * @param list<string>          $columns  ours
     * @param array<string, string> $known    what people said before, by heading in small letters
     *
     * @return array<string, string> our column by heading in small letters; "" where nothing fits or it is taken
     */
    public static function of(array $headings, array $columns, array $known): array
    {
        $mapping = $taken = [];
        $keys = array_values(array_unique(array_map(CsvFile::key(...), $headings)));
        $ways = [
            static fn (string $key): ?string => in_array($key, $columns, true) ? $key : null,
            static fn (string $key): ?string => isset($known[$key]) && in_array($known[$key], $columns, true)
                ? $known[$key]
                : null,
            static function (string $key) use ($columns): ?string {
                foreach ($columns as $column) {
                    if (self::bare($column) === self::bare($key)) {
                        return $column;
                    }
                }

                return null;
            },
            static function (string $key) use ($columns): ?string {
                foreach ($columns as $column) {
                    if (in_array(self::bare($key), self::WORDS[$column] ?? [], true)) {
                        return $column;
                    }
                }

                return null;
            },
        ];
        // The surest way first, over all headings, so that a lesser guess takes no column from a sure one.
        foreach ($ways as $n => $way) {
            foreach ($keys as $key) {
                if (isset($mapping[$key]) || (1 !== $n && '' === ($known[$key] ?? null))) {
                    continue;
                }
                $column = $way($key);
                if (null !== $column && !isset($taken[$column])) {
                    $mapping[$key] = $column;
                    $taken[$column] = true;
                }
            }
        }

        return $mapping + array_fill_keys($keys, '');
    }

    /** Small Latin letters and digits only: "Artikel-Nr." is "artikelnr". */
    private static function bare(string $words): string
    {
        $latin = \Transliterator::create('Any-Latin; Latin-ASCII; Lower()')?->transliterate($words);

        return (string) preg_replace('/[^a-z0-9]/', '', (string) $latin);
    }
}
