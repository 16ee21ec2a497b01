// Seed labels in a game script
draw_text(20, 40, "sea kale");
draw_sprite(spr_bag, 0, 8, 40);
draw_text(20, 70, "thrift");
draw_sprite(spr_bag, 0, 8, 70);
draw_text(20, 100, "sea aster");
draw_sprite(spr_bag, 0, 8, 100);
draw_text(20, 130, "rock samphire");
draw_sprite(spr_bag, 0, 8, 130);
