/** Fragments of French, Italian, Spanish and Portuguese, the last two near each other; written for this, by hand. */
export const FRENCH = `
Nous avons roulé jusqu'à la côte et sommes arrivés juste avant le coucher du soleil
Le sac est accroché au porte-bagages et supporte la pluie et la neige pendant des années
Il est difficile de dire quel modèle convient le mieux à la ville
Quand vient le printemps, nous huilons la chaîne et vérifions encore les freins
Les enfants n'ont voulu rentrer qu'une fois la glace mangée
Les prix ont augmenté depuis l'automne parce que le cuir est devenu plus cher
Par une chaude journée de juillet, l'eau ne suffit que jusqu'au village suivant
Elle a acheté une machine à coudre d'occasion et recousu les sangles
Je me demande si quelqu'un a déjà lavé la toile sans savon
Les ventes ont progressé de huit pour cent au deuxième trimestre
La réunion a été déplacée à jeudi car la moitié du bureau était malade
Versez le lait, remuez et laissez reposer la pâte une demi-heure
La forêt derrière la maison est si dense qu'on voit à peine le ciel
La plupart des lecteurs sautent l'introduction et commencent par les images
Le vent a tourné au nord et les bateaux se sont rapprochés du rivage
Personne ne savait pourquoi le train s'était arrêté au milieu d'un champ
La commune veut construire une nouvelle passerelle sur la rivière l'an prochain
Il faut changer les pneus quand le profil a moins de trois millimètres
Le chat préfère dormir dans le panier que nous avions acheté pour le pain
Au bout de trois semaines, le levain était enfin assez fort pour une miche
Le maître a demandé qui pouvait expliquer la différence entre lumière et chaleur
Le vieux quartier a été démoli malgré de nombreuses protestations
Mettez les pommes de terre dans l'eau froide pour qu'elles ne noircissent pas
Si tu y vas de toute façon, tu pourrais me rapporter le colis
La chambre était petite mais avait deux fenêtres donnant sur le port
Combien de fois peut-on demander la même chose à l'administration
L'orchestre a commencé à jouer avant que le public ne soit assis
Le journal a écrit que la récolte était la pire depuis trente ans
Mon grand-père disait que la patience est l'outil le moins cher
La cabane n'a pas d'électricité mais il y a un puits d'eau claire
Le programme s'arrête dès qu'on ouvre plus de deux fichiers
Il a fallu longtemps avant que quelqu'un ose avouer l'erreur
Elle est allée à la cuisine pour voir si le café était prêt
Ceux qui viennent avant huit heures reçoivent un petit cadeau
`;

export const ITALIAN = `
Abbiamo pedalato fino alla costa e siamo arrivati poco prima del tramonto
La borsa sta sul portapacchi e sopporta pioggia e neve per molti anni
È difficile dire quale dei modelli sia più adatto alla città
Quando arriva la primavera oliamo la catena e controlliamo ancora i freni
I bambini non volevano tornare a casa finché non finiva il gelato
I prezzi sono aumentati dall'autunno perché la pelle costa di più
In una calda giornata di luglio l'acqua basta solo fino al prossimo paese
Ha comprato una macchina da cucire usata e ha ricucito le cinghie
Mi chiedo se qualcuno abbia mai lavato la tela senza sapone
Le vendite sono cresciute dell'otto per cento nel secondo trimestre
La riunione è stata spostata a giovedì perché metà del consiglio era malata
Versate il latte, mescolate e lasciate riposare l'impasto mezz'ora
Il bosco dietro la casa è così fitto che si vede appena il cielo
La maggior parte dei lettori salta l'introduzione e comincia dalle figure
Il vento girò a nord e le barche si avvicinarono alla riva
Nessuno sapeva perché il treno si fosse fermato in mezzo al campo
Il comune vuole costruire una nuova passerella sul fiume l'anno prossimo
Bisogna cambiare le gomme quando il battistrada è sotto i tre millimetri
Il gatto preferisce dormire nel cesto che avevamo comprato per il pane
Dopo tre settimane il lievito era finalmente forte per una pagnotta intera
Il maestro chiese chi sapesse spiegare la differenza tra luce e calore
Il vecchio quartiere fu demolito anche se molti avevano protestato
Mettete le patate nell'acqua fredda perché non diventino scure
Se ci vai comunque potresti prendermi il pacco alla posta
La stanza era piccola ma aveva due finestre che davano sul porto
Quante volte si può chiedere la stessa cosa all'ufficio
L'orchestra cominciò a suonare prima che il pubblico fosse seduto
Il giornale scrisse che il raccolto era il peggiore da trent'anni
Mio nonno diceva che la pazienza è l'attrezzo più economico
La baita non ha la corrente ma c'è un pozzo con buona acqua
Il programma si blocca appena si aprono più di due file
Ci volle molto prima che qualcuno osasse ammettere l'errore
Andò in cucina per vedere se il caffè era pronto
Chi arriva prima delle otto riceve un piccolo regalo
`;

export const SPANISH = `
Pedaleamos todo el camino hasta la costa y llegamos justo antes del atardecer
La bolsa cuelga del portaequipajes y aguanta la lluvia y la nieve muchos años
Es difícil decir cuál de los modelos conviene más en la ciudad
Cuando llega la primavera engrasamos la cadena y revisamos otra vez los frenos
Los niños no quisieron volver a casa hasta que se acabó el helado
Los precios han subido desde el otoño porque el cuero es más caro
En un día caluroso de julio el agua solo alcanza hasta el próximo pueblo
Compró una máquina de coser usada y volvió a coser las correas
Me pregunto si alguien ha lavado alguna vez la lona sin jabón
Las ventas crecieron un ocho por ciento en el segundo trimestre
La reunión se pasó al jueves porque media junta estaba enferma
Vierta la leche, remueva y deje reposar la masa media hora
El bosque detrás de la casa es tan espeso que apenas se ve el cielo
La mayoría de los lectores se salta la introducción y empieza por las fotos
El viento giró hacia el norte y los barcos se acercaron a la orilla
Nadie sabía por qué el tren se había detenido en medio del campo
El ayuntamiento quiere construir una pasarela nueva sobre el río el año que viene
Hay que cambiar los neumáticos cuando el dibujo tiene menos de tres milímetros
El gato prefiere dormir en la cesta que habíamos comprado para el pan
Después de tres semanas la masa madre era por fin bastante fuerte
El maestro preguntó quién podía explicar la diferencia entre la luz y el calor
El barrio antiguo fue derribado aunque mucha gente había protestado
Ponga las patatas en agua fría para que no se oscurezcan
Si vas de todas formas podrías recogerme el paquete
La habitación era pequeña pero tenía dos ventanas que daban al puerto
Cuántas veces se puede solicitar lo mismo en la oficina
La orquesta empezó a tocar antes de que el público se sentara
El periódico escribió que la cosecha era la peor en treinta años
Mi abuelo solía decir que la paciencia es la herramienta más barata
La cabaña no tiene luz pero hay un pozo con buena agua
El programa falla en cuanto se abren más de dos archivos
Pasó mucho tiempo antes de que alguien se atreviera a admitir el error
Ella fue a la cocina para ver si el café estaba listo
Quien llegue antes de las ocho recibe un pequeño regalo
`;

export const PORTUGUESE = `
Pedalámos o caminho todo até à costa e chegámos mesmo antes do pôr do sol
A mala fica presa no suporte e aguenta a chuva e a neve durante muitos anos
É difícil dizer qual dos modelos serve melhor na cidade
Quando chega a primavera oleamos a corrente e verificamos outra vez os travões
As crianças não quiseram ir para casa até o gelado acabar
Os preços subiram desde o outono porque o couro ficou mais caro
Num dia quente de julho a água só chega até à próxima aldeia
Ela comprou uma máquina de costura usada e voltou a coser as correias
Pergunto-me se alguém já lavou a lona sem sabão
As vendas cresceram oito por cento no segundo trimestre
A reunião passou para quinta-feira porque metade da direção estava doente
Deite o leite, mexa e deixe a massa descansar meia hora
A mata atrás da casa é tão densa que mal se vê o céu
A maioria dos leitores salta a introdução e começa pelas imagens
O vento virou para norte e os barcos aproximaram-se da margem
Ninguém sabia por que razão o comboio tinha parado no meio do campo
A câmara quer construir uma nova ponte pedonal sobre o rio no próximo ano
Devem trocar-se os pneus quando o piso tem menos de três milímetros
O gato prefere dormir no cesto que tínhamos comprado para o pão
Ao fim de três semanas o fermento estava finalmente forte que chegasse
O professor perguntou quem sabia explicar a diferença entre a luz e o calor
O bairro antigo foi demolido embora muita gente tivesse protestado
Ponha as batatas em água fria para que não escureçam
Se vais lá de qualquer maneira podias trazer-me a encomenda
O quarto era pequeno mas tinha duas janelas que davam para o porto
Quantas vezes se pode pedir a mesma coisa na repartição
A orquestra começou a tocar antes de o público se sentar
O jornal escreveu que a colheita era a pior em trinta anos
O meu avô costumava dizer que a paciência é a ferramenta mais barata
A cabana não tem luz mas há um poço com boa água
O programa bloqueia assim que se abrem mais de dois ficheiros
Demorou muito até alguém ter coragem de admitir o erro
Ela foi à cozinha ver se o café estava pronto
Quem chegar antes das oito recebe uma pequena prenda
`;
