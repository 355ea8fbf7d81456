module Views
  # One cell of a table that leaves as CSV.
  module Cell
    module_function

    # What begins like a formula would be run by some programs (OWASP, CSV injection), which take the signs of full
    # width for the same.
    def safe(value) = value.to_s.sub(/\A(?=[=+\-@\t\r\n＝＋－＠])/, "'")
  end
end
