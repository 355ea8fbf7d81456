require_relative "../spec_helper"
require_relative "../support/every_mail"

# What holds for each mail, whatever it says.
RSpec.describe "Every mail" do
  listed = File.read(File.expand_path("../../docs/mails.md", __dir__))

  EveryMail.all.each do |name, parts|
    describe name do
      page = Nokogiri::HTML5(parts[:html])

      it "has a subject without “?:”, which docs/mails.md lists" do
        expect(parts[:subject]).not_to match(/\?:|\A\W|\n/)
        start = parts[:subject].split(":").first.gsub(/\b(?:Benedita Falcão|Wen Halloran)\b/, "NAME")
          .sub(/\A\d+ actions?.*/, "1 action overdue")
        expect(listed).to include start
      end

      it "says the same in text and HTML, with each link under its words" do
        links = page.css("a[href]").map { |one| one["href"] }.uniq
        bare = links.map { |link| link.sub(/\?answer=\w+\z/, "") }.uniq
        expect(bare.reject { |link| parts[:text].include?(link) }).to eq []
        lines = parts[:text].lines.map(&:strip)
        addressed = lines.each_index.select { |i| lines[i].match?(%r{\Ahttps?://\S+\z}) }
        expect(addressed.reject { |i| i.positive? && lines[i - 1].end_with?(":") }).to eq []
      end

      it "shows nobody a mark in words, a place to fill in, or nothing" do
        expect(page.text + parts[:text]).not_to match(/● |\{\w+\}|#<|\bnil\b|::/)
      end
    end
  end

  it "is in the house’s name at its head, and in ours at its foot alone" do
    before, Mailing::Html.house = Mailing::Html.house, "Skerry Buoy Trust"
    page = Nokogiri::HTML5(Mailing::LinksNote.parts(links: [])[:html])
    expect(page.css("p").first.text).to eq "Skerry Buoy Trust"
    expect(page.text.scan("Left Over").size).to eq 1
    expect(page.css("p").last.text).to include "Left Over"
  ensure
    Mailing::Html.house = before
  end
end
