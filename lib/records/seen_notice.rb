module Records
  # What somebody has seen on their Desk and put aside. `notice` says what it is and how it stood: when it changes, it
  # is another one.
  class SeenNotice < Base
    self.primary_key = %i[person_id notice]

    # @param parts [Array<#to_s>] of what it says, beside what it is about
    # @return [String]
    def self.name_of(kind, subject, *parts) = "#{kind}:#{subject}:#{Digest::SHA256.hexdigest(parts.join("|"))[0, 16]}"
  end
end
