<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Face;

/**
 * One address or more of every page a person can open, by the name of its route; braces stand for what a test makes.
 */
final class Pages
{
    public const ALL = [
        'today' => ['/'],
        'reorder' => ['/reorder', '/reorder?q=jar', '/reorder?q=nothing-has-this'],
        'reorder_paper' => ['/reorder/paper'],
        'orders' => ['/orders', '/orders?state=all', '/orders?look=lines', '/orders?look=suppliers&state=all'],
        'order_new' => ['/orders/new', '/orders/new?q=ostrel'],
        'order_amend' => ['{amendment}'],
        'supplier_order' => ['{supplier_order}'],
        'drafts' => ['/orders/drafts'],
        'order' => ['/orders/PO-1082', '/orders/PO-1080', '/orders/PO-1081', '/orders/PO-1076', '/orders/PO-1079'],
        'dock' => ['/dock', '/dock?order=PO-1077'],
        'delivery' => ['{delivery}', '{delivery}?blind=1'],
        'stock' => ['/stock', '/stock?show=over'],
        'settle' => ['/settle'],
        'settle_invoice' => ['/settle/1'],
        'invoice_new' => ['/settle/new/VETRASOL', '/settle/new/OSTREL'],
        'payments' => ['/settle/payments'],
        'served' => ['/stock/served', '/stock/served?by=item'],
        'items' => ['/items'],
        'item' => ['/items/JAR-340R'],
        'item_days' => ['/items/JAR-340R/DEPOT/days'],
        'item_use' => ['/items/JAR-340R/DEPOT/use'],
        'compare' => ['/compare'],
        'compare_item' => ['/compare/items/JAR-370H?units=576'],
        'basket' => ['/compare/basket'],
        'requisitions' => ['/requisitions'],
        'rounds' => ['/compare/rounds'],
        'round' => ['/compare/rounds/Q-1001', '/compare/rounds/Q-1002'],
        'quote' => ['{quote}'],
        'supplier_quote' => ['{supplier_quote}'],
        'agreements' => ['/agreements'],
        'agreement' => ['/agreements/A-1001'],
        'suppliers' => ['/suppliers'],
        'supplier' => ['/suppliers/VETRASOL'],
        'offer' => ['{offer}'],
        'offer_new' => ['/suppliers/VETRASOL/offers/new'],
        'price_lists' => ['/suppliers/VETRASOL/prices'],
        'price_list' => ['/suppliers/VETRASOL/prices/1'],
        'plans' => ['/plans'],
        'policies' => ['/policies', '/policies?class=A-smooth'],
        'own_data' => ['/own-data'],
        'own_data_run' => ['{run}'],
        'cost_rates' => ['/settings/costs'],
        'budget' => ['/settings/budget'],
        'ways' => ['/settings/ways'],
        'limits' => ['/settings/limits'],
        'own_keys' => ['/settings/keys'],
        'mailbox' => ['/mailbox'],
        'stopped_work' => ['/stopped-work'],
        'find' => ['/find?q=jar', '/find?q=nothing-has-this'],
    ];

    /** Parts of pages, files, and ways that lead on. */
    public const NO_PAGES = [
        'compare_find',
        'item_days_file',
        'kept_form',
        'order_choices',
        'order_earlier',
        'order_letter',
        'order_lines',
        'order_their_list',
        'mailbox_letter',
        'order_preview',
        'order_sent',
        'orders_file',
        'orders_paper',
        'own_data_sample',
        'payments_file',
        'policy_curve',
        'price_list_standing',
        'reorder_progress',
        'reorder_rows',
        'reorder_why',
        'requisition_items',
        'round_file',
        'supplier_order_paper',
        'supplier_quote_file',
        'supplier_quote_sheet',
    ];
}
