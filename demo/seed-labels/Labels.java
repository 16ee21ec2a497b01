// Seed labels in Java
public class Labels {
    static double priceOfKale(int bags) {
        double price = bags * 2.5;
        if (price > 20) {
            price = price - 1;
        }
        System.out.println("sea kale: " + price);
        return price;
    }

    static double priceOfThrift(int bags) {
        double price = bags * 1.75;
        if (price > 15) {
            price = price - 1;
        }
        System.out.println("thrift: " + price);
        return price;
    }

    public static void main(String[] args) {
        System.out.println(priceOfKale(4) + priceOfThrift(9));
    }
}
