require "securerandom"

module Records
  # UUIDv7 (RFC 9562 5.7): time first, so that keys made one after another lie side by side in the index.
  module Key
    FORMAT = /\A\h{8}-\h{4}-7\h{3}-[89ab]\h{3}-\h{12}\z/

    module_function

    def make(now = Clock.machine)
      hex = format("%012x", (now.to_f * 1000).to_i) + SecureRandom.hex(10)
      hex[12] = "7"
      hex[16] = "89ab"[hex[16].hex % 4]
      [hex[0, 8], hex[8, 4], hex[12, 4], hex[16, 4], hex[20, 12]].join("-")
    end
  end
end
