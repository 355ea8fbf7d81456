require_relative "../web_helper"
require_relative "../support/every_mail"

# Every kind of mail as HTML on a phone: nothing is wider than the screen.
RSpec.describe "Mails on a phone" do
  before { page.driver.browser.resize(width: 390, height: 800) }

  after { page.driver.browser.resize(width: 1280, height: 800) }

  it "are nowhere wider than 390 px, and no button or link is out of reach", :aggregate_failures do
    page.driver.visit "about:blank"
    EveryMail.all.each do |name, parts|
      page.driver.browser.page.content = parts[:html]
      widest = page.evaluate_script(
        "Math.max(document.documentElement.scrollWidth, ...[...document.querySelectorAll('*')].map(one => " \
          "Math.ceil(one.getBoundingClientRect().right)))"
      )
      expect(widest).to be <= 390, "#{name} is #{widest} px wide"
    end
  end
end
