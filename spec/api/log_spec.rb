require_relative "../api_helper"

RSpec.describe Api::Log, :timeless do
  let!(:marit) { person("Marit Hauge") }

  around do |example|
    described_class.io = @io = StringIO.new
    example.run
  ensure
    described_class.io = nil
  end

  it "writes one line for a refusal, without what was asked for" do
    call(:get, "/desk")
    call(:post, "/session", {email: "marit@skerrybuoy.example", password: "a wrong password"})
    call(:get, "/answer-links/#{key}/#{key}/#{"a" * 40}")
    expect(@io.string.lines.map { |line| line[21..].strip }).to eq [
      "401 not-signed-in showDesk", "422 sign-in signIn", "404 not-found openAnswerLink"
    ]
  end

  it "writes where it broke for a fault of ours, and neither addresses nor links" do
    error =
      begin
        raise ArgumentError,
          "no marit@skerrybuoy.example at " \
            "/answer/01a20bb0-1ca6-7eca-8a79-3a564e6f6244/0123456789abcdef0123456789abcdef01234567 for 'a whole " \
            "sentence of somebody'\nmore"
      rescue => raised
        raised
      end
    described_class.broken(error, "showDesk")
    expect(@io.string).to match(/\A\S+ 500 ArgumentError showDesk no …@… at /)
    expect(@io.string).to include "log_spec.rb"
    expect(@io.string).not_to match(/skerrybuoy|0123456789abcdef|whole sentence/)
    expect(@io.string.lines.size).to be <= described_class::FRAMES + 1
  end
end
