/** Words and phrases by language. Sources are English; what is not here stays as it is. */

type Table = Readonly<Record<string, string>>;

/** `english|german|french|spanish` a line. */
const WORDS = `
the|die|le|el
a|eine|un|un
an|eine|un|un
and|und|et|y
or|oder|ou|o
but|aber|mais|pero
of|von|de|de
to|zu|à|a
in|in|dans|en
on|auf|sur|sobre
at|bei|à|a
for|für|pour|para
with|mit|avec|con
without|ohne|sans|sin
from|von|de|de
by|durch|par|por
as|als|comme|como
is|ist|est|es
are|sind|sont|son
was|war|était|era
were|waren|étaient|eran
be|sein|être|ser
been|gewesen|été|sido
has|hat|a|tiene
have|haben|ont|tienen
had|hatte|avait|tenía
do|tun|font|hacen
does|tut|fait|hace
it|es|cela|eso
its|sein|son|su
it is|es ist|c'est|es
this|dies|ceci|esto
that|das|cela|que
these|diese|ces|estos
those|jene|ceux|esos
they|sie|ils|ellos
them|sie|les|los
their|ihr|leur|su
you|Sie|vous|usted
your|Ihr|votre|su
we|wir|nous|nosotros
our|unser|notre|nuestro
i|ich|je|yo
my|mein|mon|mi
he|er|il|él
she|sie|elle|ella
not|nicht|pas|no
no|kein|aucun|ningún
if|wenn|si|si
when|wenn|quand|cuando
while|während|pendant que|mientras
until|bis|jusqu'à|hasta
after|nach|après|después de
before|vor|avant|antes de
because|weil|parce que|porque
since|da|puisque|ya que
so|so|donc|así
than|als|que|que
then|dann|puis|luego
there|dort|là|allí
here|hier|ici|aquí
what|was|quoi|qué
which|welche|lequel|cual
who|wer|qui|quien
how|wie|comment|cómo
how much|wie viel|combien|cuánto
how long|wie lange|combien de temps|cuánto tiempo
why|warum|pourquoi|por qué
where|wo|où|dónde
all|alle|tous|todos
any|irgendein|tout|cualquier
some|einige|quelques|algunos
most|die meisten|la plupart|la mayoría
many|viele|beaucoup|muchos
more|mehr|plus|más
less|weniger|moins|menos
few|wenige|peu|pocos
each|jede|chaque|cada
every|jede|chaque|cada
both|beide|les deux|ambos
one|eins|un|uno
two|zwei|deux|dos
three|drei|trois|tres
four|vier|quatre|cuatro
five|fünf|cinq|cinco
half|halb|demi|medio
first|erste|premier|primero
second|zweite|deuxième|segundo
last|letzte|dernier|último
other|andere|autre|otro
same|gleiche|même|mismo
only|nur|seulement|sólo
also|auch|aussi|también
too|zu|trop|demasiado
very|sehr|très|muy
well|gut|bien|bien
still|noch|encore|todavía
again|wieder|encore|otra vez
always|immer|toujours|siempre
never|nie|jamais|nunca
often|oft|souvent|a menudo
usually|meist|d'habitude|normalmente
can|kann|peut|puede
cannot|kann nicht|ne peut pas|no puede
will|wird|va|va a
would|würde|serait|sería
may|darf|peut|puede
might|könnte|pourrait|podría
must|muss|doit|debe
should|sollte|devrait|debería
need|brauchen|ont besoin|necesitan
needs|braucht|a besoin|necesita
make|machen|faire|hacer
makes|macht|fait|hace
made|gemacht|fait|hecho
take|nehmen|prendre|tomar
takes|nimmt|prend|toma
keep|halten|garder|guardar
keeps|hält|garde|guarda
kept|gehalten|gardé|guardado
use|benutzen|utiliser|usar
used|benutzt|utilisé|usado
put|legen|mettre|poner
give|geben|donner|dar
gives|gibt|donne|da
go|gehen|aller|ir
goes|geht|va|va
come|kommen|venir|venir
comes|kommt|vient|viene
leave|lassen|laisser|dejar
let|lassen|laisser|dejar
stir|rühren|remuer|remover
taste|schmecken|goûter|probar
weigh|wiegen|peser|pesar
cut|schneiden|couper|cortar
press|drücken|presser|presionar
pack|packen|tasser|apretar
cover|bedecken|couvrir|cubrir
open|öffnen|ouvrir|abrir
close|schließen|fermer|cerrar
wait|warten|attendre|esperar
begin|beginnen|commencer|empezar
begins|beginnt|commence|empieza
stop|aufhören|arrêter|parar
stay|bleiben|rester|quedar
stays|bleibt|reste|queda
turn|drehen|tourner|girar
rise|steigen|monter|subir
sink|sinken|couler|hundirse
good|gut|bon|bueno
better|besser|meilleur|mejor
best|am besten|le meilleur|mejor
bad|schlecht|mauvais|malo
small|klein|petit|pequeño
big|groß|grand|grande
large|groß|grand|grande
long|lang|long|largo
short|kurz|court|corto
old|alt|vieux|viejo
new|neu|nouveau|nuevo
clean|sauber|propre|limpio
fresh|frisch|frais|fresco
dry|trocken|sec|seco
wet|nass|humide|húmedo
warm|warm|chaud|caliente
cold|kalt|froid|frío
cool|kühl|frais|fresco
hot|heiß|chaud|caliente
soft|weich|mou|blando
crisp|knackig|croquant|crujiente
sour|sauer|acide|ácido
sweet|süß|sucré|dulce
sharp|scharf|piquant|fuerte
safe|sicher|sûr|seguro
enough|genug|assez|bastante
little|wenig|peu|poco
right|richtig|juste|correcto
wrong|falsch|faux|incorrecto
white|weiß|blanc|blanco
red|rot|rouge|rojo
green|grün|vert|verde
black|schwarz|noir|negro
salt|Salz|sel|sal
salty|salzig|salé|salado
water|Wasser|eau|agua
brine|Lake|saumure|salmuera
sugar|Zucker|sucre|azúcar
acid|Säure|acide|ácido
vinegar|Essig|vinaigre|vinagre
air|Luft|air|aire
gas|Gas|gaz|gas
yeast|Hefe|levure|levadura
mould|Schimmel|moisissure|moho
bacteria|Bakterien|bactéries|bacterias
culture|Kultur|culture|cultivo
cultures|Kulturen|cultures|cultivos
cabbage|Kohl|chou|col
sauerkraut|Sauerkraut|choucroute|chucrut
kimchi|Kimchi|kimchi|kimchi
garlic|Knoblauch|ail|ajo
honey|Honig|miel|miel
ginger|Ingwer|gingembre|jengibre
onion|Zwiebel|oignon|cebolla
carrot|Karotte|carotte|zanahoria
carrots|Karotten|carottes|zanahorias
cucumber|Gurke|concombre|pepino
cucumbers|Gurken|concombres|pepinos
pickles|Gurken|cornichons|pepinillos
tea|Tee|thé|té
kombucha|Kombucha|kombucha|kombucha
milk|Milch|lait|leche
flour|Mehl|farine|harina
bread|Brot|pain|pan
fruit|Obst|fruit|fruta
vegetable|Gemüse|légume|verdura
vegetables|Gemüse|légumes|verduras
leaf|Blatt|feuille|hoja
leaves|Blätter|feuilles|hojas
jar|Glas|bocal|tarro
jars|Gläser|bocaux|tarros
crock|Steintopf|pot en grès|vasija
crocks|Steintöpfe|pots en grès|vasijas
lid|Deckel|couvercle|tapa
lids|Deckel|couvercles|tapas
weight|Gewicht|poids|peso
weights|Gewichte|poids|pesos
glass|Glas|verre|vidrio
stone|Stein|pierre|piedra
spoon|Löffel|cuillère|cuchara
knife|Messer|couteau|cuchillo
scale|Waage|balance|balanza
kitchen|Küche|cuisine|cocina
room|Raum|pièce|habitación
fridge|Kühlschrank|réfrigérateur|nevera
day|Tag|jour|día
days|Tage|jours|días
week|Woche|semaine|semana
weeks|Wochen|semaines|semanas
month|Monat|mois|mes
months|Monate|mois|meses
year|Jahr|an|año
hour|Stunde|heure|hora
hours|Stunden|heures|horas
minutes|Minuten|minutes|minutos
time|Zeit|temps|tiempo
times|Mal|fois|veces
per cent|Prozent|pour cent|por ciento
degrees|Grad|degrés|grados
grams|Gramm|grammes|gramos
gram|Gramm|gramme|gramo
kilo|Kilo|kilo|kilo
litre|Liter|litre|litro
litres|Liter|litres|litros
temperature|Temperatur|température|temperatura
part|Teil|partie|parte
parts|Teile|parties|partes
piece|Stück|morceau|trozo
pieces|Stücke|morceaux|trozos
thing|Ding|chose|cosa
things|Dinge|choses|cosas
way|Weg|façon|manera
top|oben|dessus|arriba
bottom|Boden|fond|fondo
side|Seite|côté|lado
surface|Oberfläche|surface|superficie
smell|Geruch|odeur|olor
flavour|Geschmack|goût|sabor
colour|Farbe|couleur|color
skin|Haut|peau|piel
batch|Ansatz|lot|lote
recipe|Rezept|recette|receta
people|Leute|gens|gente
reader|Leser|lecteur|lector
subject|Thema|sujet|tema
drawing on the subject|Zeichnung zum Thema|dessin sur le sujet|dibujo sobre el tema
fermentation|Gärung|fermentation|fermentación
ferment|gären|fermenter|fermentar
ferments|gärt|fermente|fermenta
fermented|vergoren|fermenté|fermentado
fermenting|gärend|en fermentant|fermentando
under|unter|sous|bajo
over|über|sur|sobre
above|über|au-dessus|encima
below|unter|au-dessous|debajo
between|zwischen|entre|entre
into|in|dans|en
out|heraus|dehors|fuera
off|ab|hors|fuera
up|hoch|en haut|arriba
down|herunter|en bas|abajo
through|durch|à travers|a través
around|um|autour|alrededor
about|etwa|environ|unos
rain|Regen|pluie|lluvia
barrel|Fass|tonneau|barril
roof|Dach|toit|tejado
garden|Garten|jardin|jardín
winter|Winter|hiver|invierno
summer|Sommer|été|verano
`;

function tableOf(column: number): Table {
  const rows = WORDS.trim()
    .split('\n')
    .map((line) => line.split('|'));
  return Object.fromEntries(rows.map((row) => [row[0]!, row[column]!]));
}

export const TABLES: Readonly<Record<string, Table>> = { German: tableOf(1), French: tableOf(2), Spanish: tableOf(3) };
